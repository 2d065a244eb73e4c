import type { HouseStyle, Service } from '@grivo/contract';
import type { ChosenRole, ProcedureDocument, ServiceRole } from '@grivo/core';
import { CHOSEN_ROLES, LANGUAGES, languageName } from '@grivo/core';
import { useContext } from 'react';
import { ChoiceEditor, ChoiceWord, Word } from '../design/index.ts';
import { amount, money } from '../words/figures.ts';
import { Costs, stepBy, wholeBy } from './costs.ts';

/** What a service takes, to choose by. */
function priceOf({ role, price }: Service): string {
  if (role === 'illustrator') return `${amount(price.microsPerPicture)} € a picture`;
  if (role === 'transcriber') return `${amount(price.microsPerMinute)} € a minute`;
  return `${amount(price.microsPerThousandOut)} € for 1,000 tokens`;
}

/** One service of a role, or whichever is meant without one; beside each about what it would cost here, and what it takes. */
export function ServiceChoice({
  services,
  role,
  value,
  else: otherwise,
  step = null,
  onChoose,
}: {
  services: readonly Service[];
  role: ServiceRole;
  value: string;
  /** What is used where none is chosen. */
  else: string;
  /** The step it is chosen for; null for all that name none. */
  step?: string | null;
  onChoose: (id: string) => void;
}) {
  const estimate = useContext(Costs);
  const costs = (id: string): string => {
    const cost = estimate && (step === null ? wholeBy(estimate, role, id) : stepBy(estimate, step, id));
    return cost ? `about ${money(cost.micros)} ${step === null ? 'a brief' : 'for this step'}; ` : '';
  };
  return (
    <ChoiceEditor
      value={value}
      options={[
        { value: '', says: otherwise, does: 'whichever that is' },
        ...services
          .filter((one) => one.role === role)
          .map((one) => ({ value: one.id, says: one.name, does: `${costs(one.id)}${priceOf(one)}` })),
      ]}
      onChoose={onChoose}
    />
  );
}

/** A procedure whose steps that name none are done by a service of a role; '' for the installation's. */
export function servedBy(document: ProcedureDocument, role: ChosenRole, id: string): ProcedureDocument {
  const { [role]: _, ...others } = document.services ?? {};
  const chosen = id === '' ? others : { ...others, [role]: id };
  const { services: __, ...rest } = document;
  return Object.keys(chosen).length === 0 ? rest : { ...rest, services: chosen };
}

const DOES = { writer: 'by', illustrator: 'drawn by', transcriber: 'heard by', 'look-up': 'pages found by' } as const;

/** The language of a procedure, and the services its steps use where there are several to choose from. */
export function WrittenBy({
  document,
  services,
  styles,
  edit,
}: {
  document: ProcedureDocument;
  services: readonly Service[];
  styles: readonly HouseStyle[];
  edit: (change: (now: ProcedureDocument) => ProcedureDocument) => void;
}) {
  const languages = Object.entries(LANGUAGES).map(([value, says]) => ({ value, says, does: value }));
  const several = CHOSEN_ROLES.filter(
    (role) => document.services?.[role] !== undefined || services.filter((one) => one.role === role).length > 1,
  );
  return (
    <p className="pb-2 text-small">
      Written in{' '}
      <ChoiceWord
        label="The language it is written in"
        value={document.language}
        options={languages}
        onChoose={(language) => edit((now) => ({ ...now, language }))}
      >
        {languageName(document.language)}
      </ChoiceWord>
      {several.map((role) => {
        const chosen = document.services?.[role] ?? '';
        const standard = services.find((one) => one.role === role && one.used)?.name ?? `the ${role}`;
        return (
          <span key={role}>
            , {DOES[role]}{' '}
            <Word
              label={`The ${role} of this procedure`}
              editor={(close) => (
                <ServiceChoice
                  services={services}
                  role={role}
                  value={chosen}
                  else={`the ${role} chosen in Settings`}
                  onChoose={(id) => {
                    edit((now) => servedBy(now, role, id));
                    close();
                  }}
                />
              )}
            >
              {chosen === '' ? standard : (services.find(({ id }) => id === chosen)?.name ?? 'a service that is gone')}
            </Word>
          </span>
        );
      })}
      <InStyle document={document} styles={styles} edit={edit} />.
    </p>
  );
}

/** The house style of all steps that name none; without one that of the blog is meant. */
function InStyle({
  document,
  styles,
  edit,
}: {
  document: ProcedureDocument;
  styles: readonly HouseStyle[];
  edit: (change: (now: ProcedureDocument) => ProcedureDocument) => void;
}) {
  if (styles.length === 0 && document.style === undefined) return null;
  return (
    <>
      , in the house style{' '}
      <ChoiceWord
        label="The house style of this procedure"
        value={document.style ?? ''}
        options={[
          { value: '', says: 'of the blog', does: 'each article in that of the blog it goes to' },
          ...styles.map(({ id, name, version }) => ({ value: id, says: name, does: `version ${version}` })),
        ]}
        onChoose={(id) => edit(({ style: _, ...now }) => (id === '' ? now : { ...now, style: id }))}
      >
        {document.style === undefined
          ? 'of the blog'
          : (styles.find(({ id }) => id === document.style)?.name ?? 'that is gone')}
      </ChoiceWord>
    </>
  );
}
