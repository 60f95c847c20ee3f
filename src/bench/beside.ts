'use client';

import { useDeferredValue } from 'react';
import { type BenchState, useBench } from './store';

/**
 * Something of the bench that is shown beside the sheet: drawn after the sheet itself, so that a key press is seen in the letters
 * first and in their figures a moment later.
 */
export const useBeside = <T>(select: (state: BenchState) => T): T => useDeferredValue(useBench(select));
