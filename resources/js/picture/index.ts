export { ModelShelf } from './models';
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
