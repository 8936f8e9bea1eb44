<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

use CrispReel\Core\CoreFailure;
use RuntimeException;

final class UnableToReadGltf extends RuntimeException implements CoreFailure
{
    private function __construct(private readonly string $reasonName, string $message, private readonly string $remedyText)
    {
        parent::__construct($message);
    }

    public static function wrongMagic(string $found): self
    {
        return new self(
            'gltf.magic',
            sprintf(
                'This is not a glTF file: it begins with "%s" where "glTF" or a JSON object belongs.',
                addcslashes($found, "\0..\37\177..\377"),
            ),
            'Export it again as GLB (binary glTF 2.0).',
        );
    }

    public static function unsupportedVersion(string $version): self
    {
        return new self(
            'gltf.version',
            sprintf('This file says glTF version %s; version 2 is read here.', $version),
            'Export it again as glTF 2.0.',
        );
    }

    public static function truncated(int $claimed, int $found): self
    {
        return new self(
            'gltf.truncated',
            sprintf('The file claims %d bytes and holds %d.', $claimed, $found),
            'It was cut off on its way; copy or download it again.',
        );
    }

    public static function brokenJson(string $detail): self
    {
        return new self('gltf.json', sprintf('The JSON part cannot be read: %s.', $detail), 'Export the file again.');
    }

    public static function malformed(string $where, string $what): self
    {
        return new self(
            'gltf.malformed',
            sprintf('%s: %s.', $where, $what),
            'Export the file again, or open it in a glTF validator to see the place.',
        );
    }

    public static function accessorOutOfRange(int $accessor, int $needed, int $held): self
    {
        return new self(
            'gltf.accessor-range',
            sprintf('Accessor %d reaches to byte %d of a buffer view of %d bytes.', $accessor, $needed, $held),
            'Export the file again; the data it points to are not there.',
        );
    }

    public static function notFinite(int $accessor, int $index): self
    {
        return new self(
            'gltf.not-finite',
            sprintf('Accessor %d holds a value that is not a number, at position %d.', $accessor, $index),
            'Look for collapsed faces or broken keys in the source and export again.',
        );
    }

    public static function cyclicNodes(int $node): self
    {
        return new self(
            'gltf.cycle',
            sprintf('Node %d is its own ancestor.', $node),
            'Repair the hierarchy in the source and export again.',
        );
    }

    public static function externalFile(string $where, string $uri): self
    {
        return new self(
            'gltf.external',
            sprintf('%s points to another file, "%s".', $where, mb_substr($uri, 0, 80)),
            'Bring in a GLB, or a glTF with everything embedded.',
        );
    }

    public static function tooLarge(string $what, int $found, int $limit): self
    {
        return new self(
            'gltf.too-large',
            sprintf('%s: %s where at most %s are taken.', $what, number_format($found), number_format($limit)),
            'Simplify the model before bringing it in.',
        );
    }

    public static function unknownExtension(string $name): self
    {
        return new self(
            'gltf.extension',
            sprintf('The file needs the extension "%s", which is not read here.', mb_substr($name, 0, 60)),
            'Export again without compression or vendor extensions.',
        );
    }

    public function reason(): string
    {
        return $this->reasonName;
    }

    public function remedy(): string
    {
        return $this->remedyText;
    }
}
