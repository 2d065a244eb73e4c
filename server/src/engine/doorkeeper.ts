import type { Ground } from '../ground/ground.ts';
import { admit, type PinsFor, pipelinesWaiting } from './admission.ts';
import type { BriefChange } from './briefChange.ts';
import type { Procedures } from './briefState.ts';
import type { ServiceFor } from './lane.ts';

export interface DoorkeeperPorts {
  ground: Ground;
  procedures: Procedures;
  pinsFor: PinsFor;
  holder: () => string;
  serviceFor: ServiceFor;
  /** Whether this worker takes a first step on; `pledged` were taken on in the same transaction. */
  mayTake: (service: string | null, priority: number, pledged: number) => boolean;
  /** A first step that was to be taken on and was not committed. */
  onTakenBack: (service: string | null) => void;
  onAdmitted: (changes: readonly BriefChange[]) => void;
}

/** Lets waiting briefs into work, one pipeline after the other; asked again while it is at it, it goes on with what was added. */
export class Doorkeeper {
  private readonly wanted = new Set<string>();
  private admitting = false;
  private closed = false;

  constructor(private readonly ports: DoorkeeperPorts) {}

  get busy(): boolean {
    return this.admitting;
  }

  /** Lets nobody in any more; what is under way is ended. */
  close(): void {
    this.closed = true;
  }

  /** Looks at every pipeline with briefs that wait. */
  async letInWaiting(): Promise<void> {
    await this.letIn(await pipelinesWaiting(this.ports.ground.db));
  }

  async letIn(pipelines: Iterable<string>): Promise<void> {
    for (const pipeline of pipelines) this.wanted.add(pipeline);
    if (this.admitting) return;
    this.admitting = true;
    try {
      for (const pipeline of this.wanted) {
        if (this.closed) return;
        this.wanted.delete(pipeline);
        await this.one(pipeline);
      }
    } finally {
      this.admitting = false;
    }
  }

  private async one(pipeline: string): Promise<void> {
    const { ground, procedures, pinsFor, holder, serviceFor, mayTake, onTakenBack, onAdmitted } = this.ports;
    let pledged = 0;
    const { changes, more } = await admit(
      {
        ground,
        procedures,
        pinsFor,
        holder: holder(),
        serviceFor,
        handoff: (service, priority) => mayTake(service, priority, pledged) && ++pledged > 0,
        onTakenBack: (service) => {
          pledged--;
          onTakenBack(service);
        },
      },
      pipeline,
    );
    if (more) this.wanted.add(pipeline);
    onAdmitted(changes);
  }
}
