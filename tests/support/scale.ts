/** Sizes of the large sets: a fixed sample in `npm test`, all of it in `npm run verify`. */
export const inFull = process.env.NEEDLEFILE_VERIFY === '1';
export const sample = (few: number, all: number): number => (inFull ? all : few);
