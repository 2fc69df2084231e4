/** Whether an item is what a letter looks for: by its id, or by the end of it in whichever joint. @example isWished('knee.imaging.film', 'imaging.film') // true */
export const isWanted = (item: string, wanted: string): boolean => item === wanted || item.endsWith(`.${wanted}`)
