<?php

declare(strict_types=1);

namespace CrispReel\Core\Format\Gltf;

/** The triangles that a list of vertices stands for: each three, a strip or a fan (glTF 2.0, section 3.7.2.1). */
final class Triangles
{
    public const LIST = 4;

    public const STRIP = 5;

    public const FAN = 6;

    public const MODES = [self::LIST, self::STRIP, self::FAN];

    /**
     * Three vertices each, facing as they were meant; those of no area, which only join strips, are left out.
     *
     * @param  list<int>  $vertices  in the order in which the file has them
     * @return list<int>
     */
    public static function of(int $mode, array $vertices): array
    {
        if ($mode === self::LIST) {
            return $vertices;
        }
        $out = [];
        for ($i = 0, $n = count($vertices) - 2; $i < $n; $i++) {
            [$a, $b, $c] = $mode === self::FAN
                ? [$vertices[$i + 1], $vertices[$i + 2], $vertices[0]]
                : [$vertices[$i], $vertices[$i + 1 + $i % 2], $vertices[$i + 2 - $i % 2]];
            if ($a !== $b && $b !== $c && $c !== $a) {
                $out[] = $a;
                $out[] = $b;
                $out[] = $c;
            }
        }

        return $out;
    }
}
