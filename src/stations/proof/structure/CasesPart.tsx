'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import {
  changedCase,
  changedCombination,
  withCase,
  withCombination,
  withoutCase,
  type StructureSettings,
} from '@/core/model/structureSettings';
import { plainCombinations } from '@/core/structure/derive/combinations';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';
import { useStructure } from './useStructure';

/** The load cases of the project. */
export function CasesPart() {
  const { settings, change } = useStructure();
  return (
    <Part
      title="Load cases"
      aside={
        <Button variant="text" onClick={() => change('Add a load case', withCase)}>
          Add a case
        </Button>
      }
    >
      {settings.cases.map((one) => (
        <Box
          key={one.id}
          role="group"
          aria-label={`Case ${one.id}`}
          sx={{ display: 'grid', gridTemplateColumns: '64px 1fr 96px auto', gap: 1, mb: 1.5 }}
        >
          <NameField
            label="Case"
            value={one.id}
            taken={settings.cases.map(({ id }) => id)}
            change={(id) => change(`Rename case ${one.id}`, (now) => changedCase(now, one.id, { id }))}
          />
          <NameField
            label="Name"
            value={one.name}
            taken={[]}
            change={(name) => change(`Name of case ${one.id}`, (now) => changedCase(now, one.id, { name }))}
          />
          <NumberField
            label="Own weight"
            value={one.selfWeight}
            least={-100}
            most={100}
            change={(value) =>
              change(`Own weight in case ${one.id}`, (now) => changedCase(now, one.id, { selfWeight: value ?? 0 }))
            }
          />
          <Button
            size="small"
            variant="text"
            disabled={settings.cases.length === 1}
            onClick={() => change(`Delete case ${one.id}`, (now) => withoutCase(now, one.id))}
          >
            Delete
          </Button>
        </Box>
      ))}
      <Box sx={{ color: 'text.secondary' }}>
        Loads by the use of rooms belong to Q. A load whose case is not here has one of its own.
      </Box>
    </Part>
  );
}

/** The combinations of the project, or that they are those of EN 1990. */
export function CombinationsPart() {
  const { settings, change } = useStructure();
  const plain = settings.combinations.length === 0;
  const write = (now: StructureSettings): StructureSettings => ({
    ...now,
    combinations: plainCombinations(now.cases),
  });
  return (
    <Part
      title="Combinations"
      aside={
        <Button
          variant="text"
          onClick={() =>
            plain
              ? change('Write the combinations out', write)
              : change('Combinations of EN 1990', (now) => ({ ...now, combinations: [] }))
          }
        >
          {plain ? 'Write them out' : 'Those of EN 1990'}
        </Button>
      }
    >
      {plain && (
        <Box sx={{ color: 'text.secondary' }}>
          Those of EN 1990: each variable case leading in turn with 1.35 and 1.5 (ULS), and as they come (SLS).
        </Box>
      )}
      {settings.combinations.map((one) => (
        <Combination key={one.id} id={one.id} factors={one.factors} />
      ))}
      {!plain && (
        <Button size="small" variant="outlined" onClick={() => change('Add a combination', withCombination)}>
          Add a combination
        </Button>
      )}
    </Part>
  );
}

function Combination({ id, factors }: StructureSettings['combinations'][number]) {
  const { settings, change } = useStructure();
  const remove = (now: StructureSettings): StructureSettings => ({
    ...now,
    combinations: now.combinations.filter((one) => one.id !== id),
  });
  return (
    <Box role="group" aria-label={`Combination ${id}`} sx={{ mb: 1.75 }}>
      <Box sx={{ display: 'flex', gap: 1, mb: 1.25 }}>
        <NameField
          label="Combination"
          value={id}
          taken={settings.combinations.map((one) => one.id)}
          change={(next) => change(`Rename ${id}`, (now) => changedCombination(now, id, { id: next }))}
        />
        <Button size="small" variant="text" onClick={() => change(`Delete ${id}`, remove)}>
          Delete
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', columnGap: 1, rowGap: 1.25 }}>
        {settings.cases.map((one) => (
          <NumberField
            key={one.id}
            label={one.id}
            value={factors[one.id] ?? 0}
            least={-100}
            most={100}
            change={(value) =>
              change(`Factor of ${one.id} in ${id}`, (now) =>
                changedCombination(now, id, { factors: { ...factors, [one.id]: value ?? 0 } }),
              )
            }
          />
        ))}
      </Box>
    </Box>
  );
}

interface NameFieldProps {
  label: string;
  value: string;
  /** Names that others have. */
  taken: readonly string[];
  change: (name: string) => void;
}

/** A name, taken once it is left; an empty one and one that another has are not. */
function NameField({ label, value, taken, change }: NameFieldProps) {
  return (
    <TextField
      key={value}
      size="small"
      label={label}
      defaultValue={value}
      slotProps={{ htmlInput: { maxLength: 40 } }}
      onBlur={({ target }) => {
        const name = target.value.trim();
        if (name !== '' && name !== value && !taken.includes(name)) change(name);
        else target.value = value;
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && event.target instanceof HTMLElement) event.target.blur();
      }}
    />
  );
}
