export { ModelShelf } from './models';
export { Painter, viewOf, type Quality, type View } from './painter';
export { PieceStore, Stretch, trackRow, type CameraRow } from './pieces';
export { shotAt, wholeManifest, type Manifest, type ManifestItem, type ManifestNote, type ManifestPart, type ManifestShot } from './stream';
