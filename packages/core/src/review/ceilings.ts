/** Most core items that a region may ask in each part of the examination: about five minutes of item time. */
export const STAGE_CEILINGS = {
  story: { stages: ['story'], most: 14 },
  screen: { stages: ['screen'], most: 8 },
  look: { stages: ['look'], most: 8 },
  feel: { stages: ['feel'], most: 12 },
  move: { stages: ['move', 'neighbours'], most: 8 },
  'strength, nerve and vessel': { stages: ['strength', 'neuro', 'vascular'], most: 12 },
  test: { stages: ['test'], most: 8 },
} as const
