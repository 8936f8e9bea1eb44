<?php

declare(strict_types=1);

namespace App\Intake;

/** Which endings are taken as what. */
final class FileKinds
{
    public const MODELS = ['glb', 'gltf', 'dae', 'obj', 'x3d', 'ply', 'stl'];

    /** Brought to GLB by the Open Asset Import Library. */
    public const CONVERTED = ['dae', 'obj', 'x3d', 'ply', 'stl'];

    public const MOTIONS = ['bvh'];

    public const SOUNDS = ['wav', 'flac', 'ogg', 'mp3'];

    public const PICTURES = ['png', 'jpg', 'jpeg', 'webp'];

    public const COMPANIONS = ['bin', 'mtl', 'tga', 'bmp', 'gif', 'tif', 'tiff'];

    /** What survives of each kind; docs/formats.md has the whole table, measured. */
    public const BRINGS = [
        'glb' => 'Brings meshes, colours, pictures, bones, motions and face shapes. Cameras and lights stay out.',
        'gltf' => 'Brings meshes, colours, pictures, bones, motions and face shapes. Cameras and lights stay out.',
        'dae' => 'Brings meshes, colours, pictures that come along, bones and motions (as one). No face shapes.',
        'obj' => 'Brings meshes, colours and pictures that come along. No bones, motions or face shapes.',
        'x3d' => 'Brings meshes and colours. No pictures, bones, motions or face shapes.',
        'ply' => 'Brings one mesh with the colours of its points. No pictures, bones or motions.',
        'stl' => 'Brings one mesh. No colours, pictures, bones or motions.', 'bvh' => 'Brings one motion and its skeleton. No mesh.',
    ];

    public static function ending(string $path): string
    {
        return strtolower(pathinfo($path, PATHINFO_EXTENSION));
    }

    public static function isHead(string $path): bool
    {
        return in_array(self::ending($path), [...self::MODELS, ...self::MOTIONS, ...self::SOUNDS], true);
    }

    public static function isPicture(string $path): bool
    {
        return in_array(self::ending($path), self::PICTURES, true);
    }

    public static function taken(): string
    {
        return 'GLB, glTF, BVH, COLLADA (dae), OBJ, X3D, PLY, STL, WAV, FLAC, Ogg, MP3, PNG, JPEG, WebP, and zips of these';
    }
}
