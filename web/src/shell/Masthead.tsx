import type { Person } from '@grivo/contract';
import { DropdownMenu } from 'radix-ui';
import { NavLink, useLocation, useNavigate } from 'react-router';
import { call } from '../api/call.ts';
import { queryClient } from '../api/queries.ts';
import { LabelChoice } from '../labels/LabelChoice.tsx';
import { CommandField } from './CommandField.tsx';
import { useShell } from './keys.ts';
import { VIEWS, viewOf } from './views.ts';

/** The name, the views, the label chosen, the field that finds, and one's own menu. */
export function Masthead({ person }: { person: Person }) {
  const { pathname } = useLocation();
  const on = viewOf(pathname);
  return (
    <header className="flex min-h-12 flex-wrap items-center border-b border-rule px-8 min-[860px]:h-12">
      <Name />
      <nav aria-label="Views" className="flex flex-1 flex-wrap gap-x-5">
        {VIEWS.map(({ path, name }) => (
          <NavLink
            key={path}
            to={path}
            aria-current={on === path ? 'page' : undefined}
            className={`brackets ${on === path ? 'hl hl-full font-semibold text-ink' : 'font-medium text-ink-2 hover:text-ink'}`}
          >
            {name}
          </NavLink>
        ))}
      </nav>
      <LabelChoice />
      <CommandField />
      <Own person={person} />
    </header>
  );
}

function Name() {
  return (
    <NavLink to="/" className="brackets mr-9 text-[22px] leading-[48px] font-extrabold tracking-[-0.035em]">
      <span aria-hidden>
        Gr
        <span className="relative inline-block">
          ı
          <span
            className="absolute left-1/2 top-[11.5px] h-[6.5px] w-[4.6px] -translate-x-1/2 bg-ink"
            style={{ clipPath: 'polygon(50% 0, 100% 100%, 0 100%)' }}
          />
        </span>
        vo
      </span>
      <span className="sr-only">Grivo, to Today</span>
    </NavLink>
  );
}

/** Settings, keys, and the way out. */
function Own({ person }: { person: Person }) {
  const go = useNavigate();
  const showKeys = useShell((shell) => shell.showKeys);
  const initials = person.name
    .split(/\s+/)
    .slice(0, 2)
    .map((part) => `${part.charAt(0).toUpperCase()}.`)
    .join(' ');
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="brackets ml-6 border-b border-ink px-0.5 font-read text-[15px] leading-5 italic"
        aria-label={`${initials} ${person.name}: settings, keys, sign out`}
      >
        {initials}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="pop !min-w-[200px] !p-1" align="end" sideOffset={8}>
          <p className="px-2 py-1 text-small text-ink-3">
            {person.name}, {person.role}
          </p>
          <DropdownMenu.Item className="choice" onSelect={() => void go('/settings')}>
            Settings
          </DropdownMenu.Item>
          <DropdownMenu.Item className="choice" onSelect={() => showKeys(true)}>
            Keys
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className="choice"
            onSelect={() => {
              void call('DELETE', '/session').finally(() => {
                queryClient.clear();
                window.location.assign('/');
              });
            }}
          >
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
