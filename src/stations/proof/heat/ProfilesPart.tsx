'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { counted } from '@/core/model/counted';
import type { Profile } from '@/core/model/siteSettings';
import { roomsByRule, usualProfileRules, usualProfiles, withProfiles } from '@/core/model/usualProfiles';
import { useCommit, useModel } from '@/project/useSession';
import { useSite } from '@/project/useSite';
import { Part } from '@/ui/widgets/Heading';
import { Icon } from '@/ui/widgets/Icon';
import { NumberField } from '@/ui/widgets/NumberField';
import { Table } from '@/ui/widgets/Table';

/** How rooms are used: profiles of temperature, air and gains, given to many rooms at once by their names. */
export function ProfilesPart() {
  const [site, set] = useSite();
  const model = useModel('element');
  const commit = useCommit();
  const rules = site.rules ?? usualProfileRules;
  const profiles = site.profiles ?? usualProfiles;
  const counts = roomsByRule(model, rules);
  const zones = [...model.ofKind('zone')].length;
  const fitting = zones - (counts.get(-1) ?? 0);
  const put = (next: typeof rules) => set('Rules of use', { rules: [...next] });
  return (
    <Part title="Use of rooms by their names">
      <Box sx={{ color: 'text.secondary', mb: 1 }}>
        The first rule that fits counts; a star stands for anything. {fitting} of {counted(zones, 'room')} fit one.
      </Box>
      <Box sx={{ maxHeight: 260, overflowY: 'auto' }}>
        <Table label="Rules of use" heads={['name', 'use', { text: 'rooms', figures: true }, '']}>
          {rules.map((rule, i) => (
            <tr key={`${i} ${rule.pattern}`}>
              <td>
                <Pattern
                  value={rule.pattern}
                  change={(pattern) => put(rules.map((one, k) => (k === i ? { ...one, pattern } : one)))}
                />
              </td>
              <td>
                <TextField
                  select
                  size="small"
                  variant="standard"
                  value={profiles.some(({ name }) => name === rule.profile) ? rule.profile : ''}
                  slotProps={{ htmlInput: { 'aria-label': `Use of ${rule.pattern}` } }}
                  onChange={({ target }) =>
                    put(rules.map((one, k) => (k === i ? { ...one, profile: target.value } : one)))
                  }
                >
                  {profiles.map(({ name }) => (
                    <MenuItem key={name} value={name}>
                      {name}
                    </MenuItem>
                  ))}
                </TextField>
              </td>
              <td className="figures">{counts.get(i) ?? 0}</td>
              <td>
                <IconButton
                  size="small"
                  sx={{ mt: -0.75 }}
                  aria-label={`Delete the rule ${rule.pattern}`}
                  onClick={() => put(rules.filter((_, k) => k !== i))}
                >
                  <Icon name="close" />
                </IconButton>
              </td>
            </tr>
          ))}
        </Table>
      </Box>
      <Box sx={{ display: 'flex', gap: 1, my: 1 }}>
        <Button
          variant="contained"
          disabled={fitting === 0}
          onClick={() => void commit((now) => withProfiles(now, rules, profiles))}
        >
          Apply to {counted(fitting, 'room')}
        </Button>
        <Button variant="outlined" onClick={() => put([{ pattern: '*', profile: profiles[0].name }, ...rules])}>
          Add a rule
        </Button>
      </Box>
      <Profiles profiles={profiles} put={(next) => set('Profiles of use', { profiles: next })} />
    </Part>
  );
}

/** A pattern of names; taken once it is left or Enter is pressed. */
function Pattern({ value, change }: { value: string; change: (pattern: string) => void }) {
  const [text, setText] = useState(value);
  const take = () => {
    if (text.trim() !== '' && text !== value) change(text.trim());
  };
  return (
    <TextField
      size="small"
      variant="standard"
      value={text}
      slotProps={{ htmlInput: { 'aria-label': `Names of the rule ${value}`, maxLength: 120 } }}
      onChange={({ target }) => setText(target.value)}
      onBlur={take}
      onKeyDown={({ key }) => key === 'Enter' && take()}
    />
  );
}

/** The profile that is looked at, to be changed. */
function Profiles({ profiles, put }: { profiles: readonly Profile[]; put: (next: Profile[]) => void }) {
  const [chosen, choose] = useState(profiles[0]?.name ?? '');
  const profile = profiles.find(({ name }) => name === chosen) ?? profiles[0];
  if (profile === undefined) return null;
  const change = (part: Partial<Profile>) =>
    put(profiles.map((one) => (one.name === profile.name ? { ...one, ...part } : one)));
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', columnGap: 1, rowGap: 1.25, pt: 0.75 }}>
      <TextField
        select
        size="small"
        label="Profile"
        value={profile.name}
        onChange={({ target }) => choose(target.value)}
      >
        {profiles.map(({ name }) => (
          <MenuItem key={name} value={name}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <NumberField
        label={'Held at, \u00b0C (empty is unheated)'}
        value={profile.temperature}
        least={-40}
        most={80}
        empty
        change={(temperature) => change({ temperature })}
      />
      <NumberField
        label="Air changes, 1/h"
        value={profile.airChange}
        least={0}
        most={100}
        change={(airChange) => change({ airChange: airChange ?? 0 })}
      />
      <NumberField
        label={'Gains, W/m\u00b2'}
        value={profile.gains}
        least={0}
        most={10_000}
        change={(gains) => change({ gains: gains ?? 0 })}
      />
    </Box>
  );
}
