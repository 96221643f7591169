'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { kinds } from '@/core/kinds/kinds';
import { madeKinds, usualMaterials, type Material } from '@/core/kinds/material';
import { Part } from '@/ui/widgets/Heading';
import { NumberField } from '@/ui/widgets/NumberField';
import { useStructure } from './useStructure';

/** The word for what nobody has chosen. */
const taken = '-';

/** What each kind is made of, and materials of the project's own. */
export function MaterialsPart() {
  const { settings, change } = useStructure();
  const own = new Set(settings.materials.map(({ id }) => id));
  const all = [...settings.materials, ...usualMaterials.filter(({ id }) => !own.has(id))];
  return (
    <Part title="What things are made of" aside={<OwnMaterial />}>
      <Box sx={{ color: 'text.secondary', mb: 1 }}>
        Where an element does not say it itself, at Tracing. Not chosen is concrete C30/37, and brickwork of walls that
        carry nothing.
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.25 }}>
        {madeKinds.map((kind) => (
          <TextField
            key={kind}
            select
            size="small"
            label={kinds[kind].names[1].replace(/^./, (letter) => letter.toUpperCase())}
            value={settings.made[kind] ?? taken}
            onChange={({ target: { value } }) =>
              change(`Material of ${kinds[kind].names[1]}`, (now) => ({
                ...now,
                made: { ...now.made, [kind]: value === taken ? null : value },
              }))
            }
          >
            <MenuItem value={taken}>not chosen</MenuItem>
            {all.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Box>
      {settings.materials.map((material) => (
        <OwnFields key={material.id} material={material} />
      ))}
    </Part>
  );
}

function OwnMaterial() {
  const { change } = useStructure();
  const add = () =>
    change('Add a material', (now) => {
      const number = now.materials.length + 1;
      const [plain] = usualMaterials;
      return {
        ...now,
        materials: [...now.materials, { ...plain, id: `own${number}`, name: `Own material ${number}` }],
      };
    });
  return (
    <Button variant="text" onClick={add}>
      Add a material
    </Button>
  );
}

/** The figures of a material of the project's own. */
function OwnFields({ material }: { material: Material }) {
  const { change } = useStructure();
  const set = (part: Partial<Material>) =>
    change(`Material ${material.name}`, (now) => ({
      ...now,
      materials: now.materials.map((one) => (one.id === material.id ? { ...one, ...part } : one)),
    }));
  const remove = () =>
    change(`Delete material ${material.name}`, (now) => {
      const made = { ...now.made };
      for (const kind of madeKinds) if (made[kind] === material.id) made[kind] = null;
      return { ...now, made, materials: now.materials.filter(({ id }) => id !== material.id) };
    });
  return (
    <Box
      role="group"
      aria-label={material.name}
      sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.25, mt: 1.75 }}
    >
      <TextField
        key={material.name}
        size="small"
        label="Name"
        defaultValue={material.name}
        onBlur={({ target: { value } }) => {
          if (value.trim() !== '' && value.trim() !== material.name) set({ name: value.trim() });
        }}
      />
      <Button variant="outlined" onClick={remove}>
        Delete
      </Button>
      <NumberField
        label={'Density, kg/m\u00b3'}
        value={material.density}
        least={1}
        most={25_000}
        change={(density) => set({ density: density ?? material.density })}
      />
      <NumberField
        label="Young's modulus, GPa"
        value={material.youngsModulus / giga}
        least={0.001}
        most={10_000}
        change={(value) => set({ youngsModulus: (value ?? 0) * giga })}
      />
      <NumberField
        label="Poisson's ratio"
        value={material.poissonsRatio}
        least={0}
        most={0.499}
        change={(value) => set({ poissonsRatio: value ?? 0 })}
      />
      <NumberField
        label="Conductivity, W/(m K)"
        value={material.conductivity}
        least={0.001}
        most={1000}
        change={(value) => set({ conductivity: value ?? material.conductivity })}
      />
    </Box>
  );
}

/** Pascals in a gigapascal. */
const giga = 1e9;
