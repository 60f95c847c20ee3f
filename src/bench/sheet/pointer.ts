/** Where the pointer is on the sheet, in mm; apart from the bench's state, so that moving it redraws nothing else. */
import { create } from 'zustand';

/** Where the pointer is on the sheet, in mm. */
export const usePointer = create<{ x: number; y: number }>(() => ({ x: 0, y: 0 }));
