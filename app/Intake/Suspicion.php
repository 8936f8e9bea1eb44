<?php

declare(strict_types=1);

namespace App\Intake;

/** Why a file that no reader takes is probably no good, told from its own bytes in our words. */
final class Suspicion
{
    public static function of(string $bytes, string $ending): string
    {
        $start = ltrim(substr($bytes, 0, 4096), "\xEF\xBB\xBF \t\r\n");

        return match ($ending) {
            'dae', 'x3d' => match (true) {
                ! str_starts_with($start, '<') => 'it does not begin as an XML document.',
                ! str_contains($bytes, $ending === 'dae' ? '<COLLADA' : '<X3D') => 'it is XML of another kind.',
                ! str_contains(substr($bytes, -4096), $ending === 'dae' ? '</COLLADA' : '</X3D') => 'its end is missing.',
                default => 'a part that it refers to is missing or damaged.',
            },
            'obj' => preg_match('/^\s*v\s/m', $bytes) !== 1 ? 'there are no points in it.' : (
                preg_match('/^\s*f\s/m', $bytes) !== 1
                    ? 'there are no faces in it.'
                    : 'a face names a point that is not there, or a number is damaged.'
            ),
            'ply' => ! str_starts_with($start, 'ply') ? 'it does not begin with "ply".' : (
                ! str_contains($start, 'end_header') ? 'its header has no end.' : 'it is shorter than its header says, or has no faces.'
            ),
            'stl' => 'it has no facets, or is shorter than it says.',
            default => 'it is damaged or of another kind.',
        };
    }
}
