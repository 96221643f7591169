'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { gridFamilies, labelsBy, relabel, type GridFamily, type NumberingRule } from '@/core/model/numbering';
import { formatDirection } from '@/core/units/angle';
import { formatLength } from '@/core/units/length';
import { projectRowOf } from '@/project/projectRow';
import { useModel, useCommit, useLengths } from '@/project/useSession';
import { useView } from '@/project/view';
import { Note, Part } from '@/ui/widgets/Heading';
import { Table } from '@/ui/widgets/Table';

const plain: NumberingRule = { style: 'numbers', from: 'low', first: '1', prefix: '', skip: true, between: true };
/** A rule that goes on as the family is labelled now. */
const ruleFor = ({ lines: [line] }: GridFamily): NumberingRule => ({
  ...plain,
  ...(/^[A-Z]/i.test(line.label) ? { style: 'letters', first: 'A' } : {}),
});

/** Labels of the accepted grid lines, by direction and rule. */
export function NumberingPart() {
  const state = useModel('element', 'project');
  const setView = useView((view) => view.set);
  const families = gridFamilies(state);
  const [key, setKey] = useState<string | null>(null);
  const family = families.find((one) => one.key === key) ?? families[0];
  const angles = projectRowOf(state).angles;
  if (!family)
    return (
      <Note kind="plain">
        No grid line is accepted yet; there is nothing to number.{' '}
        <Button variant="text" onClick={() => setView({ readingPart: 'review' })}>
          Review grid lines
        </Button>
      </Note>
    );
  const nameOf = (one: GridFamily) =>
    one.kind === 'arc'
      ? `${one.lines.length} arcs`
      : `${one.lines.length} ${one.lines.length === 1 ? 'line' : 'lines'} at ${formatDirection(one.angle, angles)}`;
  return (
    <>
      <Part title="Grid lines">
        <Select
          size="small"
          fullWidth
          value={family.key}
          inputProps={{ 'aria-label': 'Grid lines to number' }}
          onChange={(event) => setKey(event.target.value)}
        >
          {families.map((one) => (
            <MenuItem key={one.key} value={one.key}>
              {nameOf(one)}: {one.lines[0].label} to {one.lines[one.lines.length - 1].label}
            </MenuItem>
          ))}
        </Select>
      </Part>
      <Rule key={family.key} family={family} />
    </>
  );
}

function Rule({ family }: { family: GridFamily }) {
  const lengths = useLengths();
  const commit = useCommit();
  const [rule, setRule] = useState(() => ruleFor(family));
  const found = labelsBy(rule, family);
  const labels = found.ok ? found.value : family.lines.map(({ label }) => label);
  const [low, high] = family.way.split(' to ');
  const change = (part: Partial<NumberingRule>) => setRule({ ...rule, ...part });
  const differs = family.lines.some(({ label }, i) => label !== labels[i]);
  return (
    <>
      <Part title="By rule">
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, rowGap: 1.75, pt: 0.5 }}>
          <Select
            size="small"
            value={rule.style}
            inputProps={{ 'aria-label': 'Numbers or letters' }}
            onChange={(event) =>
              change({
                style: event.target.value as NumberingRule['style'],
                first: event.target.value === 'letters' ? 'A' : '1',
              })
            }
          >
            <MenuItem value="numbers">Numbers</MenuItem>
            <MenuItem value="letters">Letters</MenuItem>
          </Select>
          <Select
            size="small"
            value={rule.from}
            inputProps={{ 'aria-label': 'From which side' }}
            onChange={(event) => change({ from: event.target.value as NumberingRule['from'] })}
          >
            <MenuItem value="low">From the {low}</MenuItem>
            <MenuItem value="high">From the {high}</MenuItem>
          </Select>
          <TextField
            size="small"
            label="First"
            value={rule.first}
            error={!found.ok}
            onChange={(event) => change({ first: event.target.value })}
            slotProps={{ htmlInput: { className: 'mono', maxLength: 12 } }}
          />
          <TextField
            size="small"
            label="Before each"
            value={rule.prefix}
            onChange={(event) => change({ prefix: event.target.value })}
            slotProps={{ htmlInput: { className: 'mono', maxLength: 12 } }}
          />
        </Box>
        <Box sx={{ mt: 0.5 }}>
          {rule.style === 'letters' && (
            <FormControlLabel
              control={<Checkbox size="small" checked={rule.skip} onChange={(_, skip) => change({ skip })} />}
              label="without I and O"
            />
          )}
          <FormControlLabel
            control={<Checkbox size="small" checked={rule.between} onChange={(_, between) => change({ between })} />}
            label="keep lines between (A', 3.1)"
          />
        </Box>
        {!found.ok && <Note kind="look">{found.message}</Note>}
        <Button
          variant="contained"
          disabled={!found.ok || !differs}
          onClick={() => void commit((now) => relabel(now, new Map(family.lines.map(({ id }, i) => [id, labels[i]]))))}
        >
          Number {family.lines.length} {family.lines.length === 1 ? 'line' : 'lines'}
        </Button>
      </Part>
      <Part title={family.way === 'inside to outside' ? 'From inside to outside' : `From ${family.way}`}>
        <Table
          label="Labels of grid lines"
          heads={['now', 'then', { text: family.kind === 'arc' ? 'radius' : 'from the one before', figures: true }]}
        >
          {family.lines.map(({ id, label }, i) => (
            <tr key={id}>
              <td>
                <LabelField
                  key={label}
                  label={label}
                  change={(next) => void commit((now) => relabel(now, new Map([[id, next]])))}
                />
              </td>
              <td style={{ paddingTop: 8 }}>
                {labels[i] === label ? (
                  <Box component="span" sx={{ color: 'text.secondary' }}>
                    the same
                  </Box>
                ) : (
                  <b>{labels[i]}</b>
                )}
              </td>
              <td className="figures" style={{ paddingTop: 8 }}>
                {spacing(family, i) === null ? '' : formatLength(spacing(family, i)!, lengths)}
              </td>
            </tr>
          ))}
        </Table>
      </Part>
    </>
  );
}

/** One label, to be typed over. */
function LabelField({ label, change }: { label: string; change: (label: string) => void }) {
  const [text, setText] = useState(label);
  const take = () => {
    if (text.trim() !== label) change(text);
  };
  return (
    <TextField
      size="small"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') setText(label);
      }}
      sx={{ width: 74 }}
      slotProps={{ htmlInput: { 'aria-label': `Label of grid line ${label}`, className: 'mono', maxLength: 40 } }}
    />
  );
}

/** From the line before, or of an arc its radius, metres; null of the first line. */
function spacing({ kind, lines }: GridFamily, i: number): number | null {
  if (kind === 'arc') return lines[i].at;
  return i === 0 ? null : lines[i].at - lines[i - 1].at;
}
