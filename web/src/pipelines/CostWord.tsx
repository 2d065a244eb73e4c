import type { Estimate, Service } from '@grivo/contract';
import { CHOSEN_ROLES, type ChosenRole, type ProcedureDocument } from '@grivo/core';
import { ChoiceEditor, Word } from '../design/index.ts';
import { amount, money, plural } from '../words/figures.ts';
import { byService, wholeBy } from './costs.ts';
import { servedBy } from './ServiceChoice.tsx';

/** A cost that tells, where it is pressed, which service takes what of it, and what others would. */
export function CostWord({
  says,
  estimate,
  document,
  services,
  edit,
}: {
  says: string;
  estimate: Estimate | null;
  document: ProcedureDocument;
  services: readonly Service[];
  edit: (change: (now: ProcedureDocument) => ProcedureDocument) => void;
}) {
  if (says === '' || estimate === null || estimate.steps.length === 0) return says;
  return (
    <Word
      label="What it costs"
      anyone
      plain
      editor={(close) => (
        <Made
          estimate={estimate}
          document={document}
          services={services}
          choose={(role, id) => {
            edit((now) => servedBy(now, role, id));
            close();
          }}
        />
      )}
    >
      {says}
    </Word>
  );
}

/** What each service takes of it. */
function ByService({ estimate, services }: { estimate: Estimate; services: readonly Service[] }) {
  const named = (id: string) => services.find((one) => one.id === id)?.name ?? 'a service that is gone';
  return (
    <table className="w-full">
      <tbody>
        {byService(estimate).map(({ service, steps, cost }) => (
          <tr key={service} className="border-t border-rule-soft">
            <th scope="row" className="py-1 pr-3 text-left font-normal">
              {named(service)}
            </th>
            <td className="py-1 pr-3 text-ink-3">{plural(steps, 'step')}</td>
            <td className="fig py-1 text-right">{money(cost.micros)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Made({
  estimate,
  document,
  services,
  choose,
}: {
  estimate: Estimate;
  document: ProcedureDocument;
  services: readonly Service[];
  choose: (role: ChosenRole, id: string) => void;
}) {
  const [from, to] = [amount(estimate.fromMicros), amount(estimate.toMicros)];
  const several = CHOSEN_ROLES.filter(
    (role) =>
      estimate.steps.some((one) => one.role === role && !one.named) &&
      services.filter((one) => one.role === role).length > 1,
  );
  return (
    <div className="w-[23rem] max-w-full text-small">
      <p className="pb-1.5">
        <b className="font-semibold">About {money(estimate.micros)} a brief</b>
        {from === to ? (
          ''
        ) : (
          <span className="text-ink-3">
            , nine in ten from {from} to {to} €
          </span>
        )}
      </p>
      <ByService estimate={estimate} services={services} />
      {estimate.byPrice > 0 ? (
        <p className="pt-1.5 text-ink-3">
          {estimate.byPrice === 1 ? 'One step has' : `${estimate.byPrice} steps have`} not run here often enough to go
          by: reckoned from the price and what the words of the step ask for.
        </p>
      ) : null}
      {several.map((role) => (
        <div key={role} className="pt-3">
          <p className="pb-1 font-semibold">Side by side, all steps that name no {role}</p>
          <ChoiceEditor
            value={document.services?.[role] ?? services.find((one) => one.role === role && one.used)?.id ?? ''}
            options={services
              .filter((one) => one.role === role)
              .map(({ id, name }) => ({
                value: id,
                says: name,
                does: `about ${money(wholeBy(estimate, role, id).micros)} a brief`,
              }))}
            onChoose={(id) => choose(role, id)}
          />
        </div>
      ))}
    </div>
  );
}
