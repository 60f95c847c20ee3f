export const root: string;
export const local: string;
