/** The item in which a joint asks where it hurts: its words are those of its tests and plates. @example isSiteOfPain('knee.history.pain-site') // true */
export const isSiteOfPain = (id: string): boolean => /\.history\.(first-)?pain-site$/.test(id)
