/** Call logs of other systems on their way in. */
export { beginLog, keepPiece } from './pieces';
export { logCheck, logImport, startLog } from './import';
