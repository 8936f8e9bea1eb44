export { ModelShelf } from './models';
export { MOOD_NAMES } from './moods';
export { Painter, viewOf, type Quality, type View } from './painter';
export {
    BlockStore,
    PoseBlock,
    shotAt,
    type CameraRow,
    type Manifest,
    type ManifestItem,
    type ManifestNote,
    type ManifestShot,
} from './stream';
