/** Commands of plotter files that are known and not carried out. */

/** Commands that draw something which is not read, in the user’s words. */
export const UNREAD_COMMANDS: Readonly<Record<string, string>> = {
  UC: 'letters drawn stroke by stroke',
  XT: 'tick marks',
  YT: 'tick marks',
  IR: 'places given in shares of the paper',
};
/** Commands that change nothing of what is drawn here: pens, speeds, fill patterns, fonts, answers of the plotter. */
export const SILENT_COMMANDS: ReadonlySet<string> = new Set(
  (
    'AC AD AP AS BF CA CC CF CM CR CS CT CV DC DL DP DS DV EC ES FN FR FS FT GC GM IM IV KY LA LM MC MT NP NR OA OC OD ' +
    'OE OF OG OH OI OK OL OO OP OS OT OW PC PP PT PW QL RF RP RQ RV SA SB SD SL SS ST SV TD TL TR UL VA VN VS WU'
  ).split(' '),
);
