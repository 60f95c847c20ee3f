import type { Figure } from '../../tests/support/figures';

export function ofRuns<F extends Figure>(figures: readonly F[]): F[];
