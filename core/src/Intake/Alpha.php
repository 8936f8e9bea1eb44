<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use CrispReel\Core\Format\Gltf\GltfDraft;

/** How much of a picture is clear and how much is solid, from a sample of its pixels. */
final readonly class Alpha
{
    private const MOST_PIXELS = 70_000_000;

    public function __construct(public float $clear, public float $solid)
    {
    }

    public static function of(string $bytes): ?self
    {
        $size = @getimagesizefromstring($bytes);
        if ($size === false || $size[0] * $size[1] > self::MOST_PIXELS || str_starts_with($bytes, "\xFF\xD8")) {
            // A JPEG has no clear pixels.
            return $size !== false && str_starts_with($bytes, "\xFF\xD8") ? new self(0.0, 1.0) : null;
        }
        $image = @imagecreatefromstring($bytes);
        if ($image === false) {
            return null;
        }
        imagepalettetotruecolor($image);
        [$w, $h] = [imagesx($image), imagesy($image)];
        [$clear, $solid, $all] = [0, 0, 0];
        $step = max(1, (int) floor(sqrt($w * $h / 16384)));
        for ($y = intdiv($step, 2); $y < $h; $y += $step) {
            for ($x = intdiv($step, 2); $x < $w; $x += $step) {
                // GD counts from 0, solid, to 127, clear.
                $a = imagecolorat($image, $x, $y) >> 24 & 127;
                $clear += $a > 112 ? 1 : 0;
                $solid += $a < 15 ? 1 : 0;
                $all++;
            }
        }

        return $all === 0 ? null : new self($clear / $all, $solid / $all);
    }

    /** @param  array<string, mixed>  $material */
    public static function factor(array $material): float
    {
        $pbr = is_array($material['pbrMetallicRoughness'] ?? null) ? $material['pbrMetallicRoughness'] : [];
        $colour = is_array($pbr['baseColorFactor'] ?? null) ? $pbr['baseColorFactor'] : [];

        return is_numeric($colour[3] ?? null) ? (float) $colour[3] : 1.0;
    }

    public static function name(GltfDraft $draft, int $material): string
    {
        $name = $draft->list('materials')[$material]['name'] ?? null;

        return is_string($name) && $name !== '' ? $name : 'surface '.($material + 1);
    }
}
