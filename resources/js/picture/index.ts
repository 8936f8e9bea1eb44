export { ModelShelf } from './models';
export { Painter, type Quality } from './painter';
export { PieceStore, Stretch, trackRow, type CameraRow } from './pieces';
export { blendAt, blendedAt } from './blend';
export {
    shotAt,
    wholeManifest,
    type Manifest,
    type ManifestItem,
    type ManifestLine,
    type ManifestNote,
    type ManifestPart,
    type ManifestShot,
    type ManifestSound,
} from './stream';
export { viewOf, type View } from './view';
