/**
 * Letters without a shape (Unicode 16, property Default_Ignorable_Code_Point, and section 23.8): spaces of no width, marks
 * that turn the direction of reading, tags and selectors, and what is no letter at all, with which things are written that no reader sees.
 */
const UNSEEN = /(?!\u200c|\u200d|\ufe0f)\p{Default_Ignorable_Code_Point}|[\ufdd0-\ufdef\ufff9-\ufffb\ufffe\uffff]/gu;
/** Joiners belong between letters of scripts that join, and between pictures of one sign; elsewhere they hide things. */
const STRAY_JOINER =
  /(?<![\p{L}\p{M}\p{Extended_Pictographic}]|\ufe0f)[\u200c\u200d]+|(?<=[a-zA-Z])[\u200c\u200d]+|[\u200c\u200d]{2,}/gu;
/** Controls other than line ends and tabs. */
const CONTROLS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/g;

/** A text without what no reader of it could see. */
export function visibleText(text: string): string {
  return text.replace(CONTROLS, ' ').replace(UNSEEN, '').replace(STRAY_JOINER, '');
}
