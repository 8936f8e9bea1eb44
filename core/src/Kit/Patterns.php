<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit;

use CrispReel\Core\Math\Random;

/**
 * Pictures of the house for clothes, walls and floors. Each is a square that repeats without a seam; what it shows is worked
 * out for each of its points, with a little unrest of the brush.
 */
final class Patterns
{
    private const SIZE = 256;

    /** Slug, name, tags, colours from the ground up. */
    private const ALL = [
        ['check', 'Check', ['cloth', 'tablecloth', 'shirt', 'square'], [0xEFE6D2, 0xB4473C, 0x7E2E2A]],
        ['stripes', 'Stripes', ['cloth', 'shirt', 'awning', 'sailor'], [0xF0EADB, 0x35598A]],
        ['dots', 'Dots', ['cloth', 'dress', 'scarf', 'spots'], [0x2F6F6B, 0xF2E4C4]],
        ['leaves', 'Leaves', ['cloth', 'dress', 'curtain', 'wallpaper', 'plant'], [0xD9CBA4, 0x5E7F4B, 0x3F5E3A]],
        ['herringbone', 'Herringbone', ['cloth', 'coat', 'tweed', 'wool'], [0x6B6259, 0x8C8176]],
        ['bricks', 'Bricks', ['wall', 'house', 'stone'], [0xC9BCA6, 0x9C4A36, 0xB0603F]],
        ['tiles', 'Tiles', ['floor', 'kitchen', 'wall', 'chequered'], [0xE8E0D0, 0x44606B]],
        ['planks', 'Planks', ['floor', 'wood', 'boards'], [0x6E4B2F, 0x9A6B42, 0xB58252]],
    ];

    /** @return list<array{slug: string, name: string, tags: list<string>, png: string}> */
    public static function all(): array
    {
        $out = [];
        foreach (self::ALL as [$kind, $name, $tags, $colours]) {
            $out[] = ['slug' => "pattern-{$kind}", 'name' => $name, 'tags' => ['pattern', ...$tags], 'png' => self::drawn($kind, $colours)];
        }

        return $out;
    }

    /** @param  list<int>  $colours */
    private static function drawn(string $kind, array $colours): string
    {
        $image = imagecreatetruecolor(self::SIZE, self::SIZE);
        $random = new Random(crc32($kind));
        for ($y = 0; $y < self::SIZE; $y++) {
            for ($x = 0; $x < self::SIZE; $x++) {
                [$u, $v] = [$x / self::SIZE, $y / self::SIZE];
                [$which, $light] = self::at($kind, $u, $v);
                $light += 0.035 * sin(2 * M_PI * (3 * $u + sin(2 * M_PI * $v))) + 0.03 * sin(2 * M_PI * (7 * $v + 2 * $u)) + 0.05
                    * ($random->next() - 0.5);
                imagesetpixel($image, $x, $y, self::mixed($colours[$which % count($colours)], $light));
            }
        }
        ob_start();
        imagepng($image, null, 9);

        return (string) ob_get_clean();
    }

    /** @return array{int, float} which colour, and how much lighter than it (0 as it is) */
    private static function at(string $kind, float $u, float $v): array
    {
        $in = static fn (float $x, float $times): float => $x * $times - floor($x * $times);

        return match ($kind) {
            'check' => [(int) ($in($u, 4) < 0.5) + (int) ($in($v, 4) < 0.5), 0.0],
            'stripes' => [(int) ($in($v, 8) < 0.42), 0.0],
            'dots' => self::dots($u, $v),
            'leaves' => self::leaves($u, $v),
            'herringbone' => [(int) ($in($v + (fmod($u * 8, 2.0) < 1.0 ? 1 : -1) * $in($u, 8) / 8, 16) < 0.5), 0.0],
            'bricks' => self::bricks($u, $v),
            'tiles' => [((int) floor($u * 4) + (int) floor($v * 4)) % 2, min($in($u, 4), $in($v, 4)) < 0.05 ? -0.25 : 0.0],
            default => self::planks($u, $v),
        };
    }

    /** @return array{int, float} */
    private static function dots(float $u, float $v): array
    {
        $row = (int) floor($v * 8);
        $x = $u * 4 + ($row % 2) * 0.5;
        $d = hypot(($x - floor($x) - 0.5) / 4, ($v * 8 - $row - 0.5) / 8);

        return [(int) ($d < 0.035), 0.0];
    }

    /** @return array{int, float} */
    private static function leaves(float $u, float $v): array
    {
        $row = (int) floor($v * 4);
        $x = $u * 4 + ($row % 2) * 0.5;
        [$a, $b] = [$x - floor($x) - 0.5, $v * 4 - $row - 0.5];
        $turn = ((int) floor($x) + $row) % 2 === 0 ? 0.7 : -0.7;
        [$p, $q] = [$a * cos($turn) + $b * sin($turn), -$a * sin($turn) + $b * cos($turn)];
        $edge = 0.17 * (1.0 - ($q / 0.42) ** 2);

        return [abs($q) < 0.42 && abs($p) < $edge ? (abs($p) < 0.018 ? 2 : 1) : 0, 0.0];
    }

    /** @return array{int, float} */
    private static function bricks(float $u, float $v): array
    {
        $row = (int) floor($v * 8);
        $x = $u * 4 + ($row % 2) * 0.5;
        $stone = ((int) floor($x) % 4 * 7 + $row * 5) % 6;
        $joint = min(($x - floor($x)) / 4, ($v * 8 - $row) / 8) < 0.012;

        return [$joint ? 0 : 1 + (int) ($stone > 3), $joint ? 0.0 : 0.04 * ($stone - 2)];
    }

    /** @return array{int, float} */
    private static function planks(float $u, float $v): array
    {
        $board = (int) floor($v * 6);
        $x = $u + [0.0, 0.4, 0.15, 0.7, 0.3, 0.85][$board];
        $seam = min($x - floor($x), ($v * 6 - $board) / 6) < 0.008;
        $grain = 0.06 * sin(2 * M_PI * (2 * $u + 9 * $v + 0.3 * sin(2 * M_PI * ($u + $board / 6))));

        return [$seam ? 0 : 1 + ($board * 5 % 3 > 1 ? 1 : 0), $seam ? 0.0 : $grain + 0.03 * ($board % 3 - 1)];
    }

    private static function mixed(int $colour, float $light): int
    {
        $out = 0;
        foreach ([16, 8, 0] as $shift) {
            $out |= max(0, min(255, (int) round(($colour >> $shift & 255) * (1.0 + $light)))) << $shift;
        }

        return $out;
    }
}
