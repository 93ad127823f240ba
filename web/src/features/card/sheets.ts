/** What can be done beside the steps. */
export type Sheet =
  | 'menu'
  | 'wait'
  | 'hand-over'
  | 'found'
  | 'side'
  | 'more-work'
  | 'goes-back'
  | 'batch'
  | 'tools'
  | 'picture'
  | 'recheck'
  | 'calculators';
