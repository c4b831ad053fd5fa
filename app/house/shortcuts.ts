/** The keys of `kit/shell/use-shortcuts`, of readings and of drawings, as they are told: no page but that of keys carries their words. */
export const SHORTCUTS = [
  { keys: "Ctrl K", does: "Go to any place or job" },
  { keys: "Alt 1 … 5", does: "Plan, Spray, Inspect, Correct, Hand over of the open panel" },
  { keys: "Alt 0", does: "The Floor" },
  { keys: "Alt N", does: "New job" },
  { keys: "Alt S", does: "Can I sand this?" },
  { keys: "Alt R", does: "Will it run?" },
  { keys: "Alt M", does: "How much do I mix?" },
  { keys: "Alt G", does: "Which matte mix?" },
  { keys: "Alt C", does: "Cards" },
  { keys: "Alt U", does: "Switch between metric and imperial" },
  { keys: "Alt T", does: "Switch between Booth and Night" },
  { keys: "Enter", does: "In a reading: save it and go on to the next" },
  { keys: "Arrow keys", does: "On the panel drawing: move the mark, Enter places it" },
] as const;
