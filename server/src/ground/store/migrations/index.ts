import { Ground1764000000000 } from './0001-ground.ts';
import { Waiting1764100000000 } from './0002-waiting.ts';
import { Blocks1764200000000 } from './0003-blocks.ts';
import { Sheet1764300000000 } from './0004-sheet.ts';
import { Intake1764400000000 } from './0005-intake.ts';
import { Place1764500000000 } from './0006-place.ts';
import { Results1764600000000 } from './0007-results.ts';
import { Sketches1764700000000 } from './0008-sketches.ts';
import { Doors1764800000000 } from './0009-doors.ts';
import { Pace1764900000000 } from './0010-pace.ts';
import { People1765000000000 } from './0011-people.ts';
import { Mending1765100000000 } from './0012-mending.ts';
import { Languages1765200000000 } from './0013-languages.ts';
import { Standing1765300000000 } from './0014-standing.ts';
import { Reading1765400000000 } from './0015-reading.ts';
import { Labels1765500000000 } from './0016-labels.ts';
import { Edits1765600000000 } from './0017-edits.ts';
import { Comments1765700000000 } from './0018-comments.ts';
import { Ways1765800000000 } from './0019-ways.ts';
import { Styles1765900000000 } from './0020-styles.ts';
import { Links1766000000000 } from './0021-links.ts';
import { Pictures1766100000000 } from './0022-pictures.ts';
import { PictureOrigins1766200000000 } from './0023-picture-origins.ts';
import { Glance1766300000000 } from './0024-glance.ts';
import { Presence1766400000000 } from './0025-presence.ts';
import { Guests1766500000000 } from './0026-guests.ts';
import { Carried1766600000000 } from './0027-carried.ts';
import { Approvals1766700000000 } from './0028-approvals.ts';
import { Pings1766800000000 } from './0029-pings.ts';
import { Runs1766900000000 } from './0030-runs.ts';
import { Behind1767000000000 } from './0031-behind.ts';
import { Wording1767100000000 } from './0032-wording.ts';
import { Likeness1767200000000 } from './0033-likeness.ts';
import { Clicks1767300000000 } from './0034-clicks.ts';
import { Sizes1767400000000 } from './0035-sizes.ts';
import { Looks1767500000000 } from './0036-looks.ts';
import { Subjects1767600000000 } from './0037-subjects.ts';
import { LedgerMonth1767700000000 } from './0038-ledgerMonth.ts';
import { WordBlocks1767800000000 } from './0039-wordBlocks.ts';

/** Append-only: a migration that has left this repository is never changed. */
export const migrations = [
  Ground1764000000000,
  Waiting1764100000000,
  Blocks1764200000000,
  Sheet1764300000000,
  Intake1764400000000,
  Place1764500000000,
  Results1764600000000,
  Sketches1764700000000,
  Doors1764800000000,
  Pace1764900000000,
  People1765000000000,
  Mending1765100000000,
  Languages1765200000000,
  Standing1765300000000,
  Reading1765400000000,
  Labels1765500000000,
  Edits1765600000000,
  Comments1765700000000,
  Ways1765800000000,
  Styles1765900000000,
  Links1766000000000,
  Pictures1766100000000,
  PictureOrigins1766200000000,
  Glance1766300000000,
  Presence1766400000000,
  Guests1766500000000,
  Carried1766600000000,
  Approvals1766700000000,
  Pings1766800000000,
  Runs1766900000000,
  Behind1767000000000,
  Wording1767100000000,
  Likeness1767200000000,
  Clicks1767300000000,
  Sizes1767400000000,
  Looks1767500000000,
  Subjects1767600000000,
  LedgerMonth1767700000000,
  WordBlocks1767800000000,
];
