<?php

declare(strict_types=1);

namespace CrispReel\Core\Speech;

/**
 * What each sound asks of the mouth: targets and how strongly they are held (1 where nothing is said) of seven parameters: J jaw,
 * W width (pursed below 0), F funnel, U upper lip up, L lower lip down, T tongue up, O tongue out. Sounds that close the lips or
 * tuck the lower one say nothing of U and L: their closure is laid over all.
 */
final class MouthTable
{
    /** Of each parameter: how fast its hold fades before and after a sound, per millisecond. */
    public const RATES = [
        'J' => [0.020, 0.017], 'W' => [0.022, 0.022], 'F' => [0.022, 0.022], 'U' => [0.022, 0.020], 'L' => [0.022, 0.020],
        'T' => [0.030, 0.030], 'O' => [0.034, 0.034],
    ];

    /** Rounding begins early: how much slower W and F fade. */
    public const SLOW = ['w' => 0.6, 'uw' => 0.6, 'uh' => 0.6, 'ao' => 0.6, 'r' => 0.8, 'sh' => 0.8, 'zh' => 0.8, 'ch' => 0.8, 'jh' => 0.8];

    /** Two sounds in one, and the share of the first. */
    public const GLIDES = [
        'ay' => ['aa', 'iy', 0.60], 'aw' => ['aa', 'uw', 0.55], 'ow' => ['ao', 'uw', 0.50], 'ey' => ['eh', 'iy', 0.45],
        'oy' => ['ao', 'iy', 0.55],
    ];

    public const SEALS = ['p', 'b', 'm'];

    public const TUCKS = ['f', 'v'];

    private const DENTAL = [
        'J' => [0.14, 0.7], 'W' => [0.15, 0.25], 'F' => [0.0, 0.25], 'U' => [0.22, 0.5], 'L' => [0.35, 0.5], 'T' => [0.6, 1.0],
    ];

    private const HISS = [
        'J' => [0.04, 1.0], 'W' => [0.22, 0.5], 'F' => [0.0, 0.4], 'U' => [0.40, 0.9], 'L' => [0.50, 0.9], 'T' => [0.0, 1.0],
    ];

    private const HUSH = ['J' => [0.06, 1.0], 'W' => [-0.35, 1.0], 'F' => [0.75, 1.1], 'U' => [0.25, 0.8], 'L' => [0.25, 0.8]];

    private const BETWEEN_TEETH = [
        'J' => [0.22, 1.0], 'W' => [0.15, 0.4], 'F' => [0.0, 0.6], 'U' => [0.25, 0.7], 'L' => [0.35, 0.7], 'O' => [1.0, 1.5],
    ];

    private const BACK = ['J' => [0.24, 0.5], 'W' => [0.05, 0.1], 'F' => [0.0, 0.15], 'U' => [0.15, 0.3], 'L' => [0.25, 0.3]];

    private const SEAL = ['J' => [0.06, 1.0], 'W' => [0.0, 0.15], 'F' => [0.0, 0.25]];

    private const TUCK = ['J' => [0.10, 1.0], 'W' => [0.15, 0.3], 'F' => [0.0, 0.6]];

    private const TARGETS = [
        'aa' => ['J' => [0.85, 1.0], 'W' => [0.05, 0.6], 'F' => [0.0, 0.8], 'U' => [0.25, 0.6], 'L' => [0.30, 0.6]],
        'ae' => ['J' => [0.72, 1.0], 'W' => [0.50, 0.9], 'F' => [0.0, 1.0], 'U' => [0.45, 0.7], 'L' => [0.35, 0.7]],
        'ah' => ['J' => [0.58, 1.0], 'W' => [0.08, 0.6], 'F' => [0.0, 0.8], 'U' => [0.25, 0.6], 'L' => [0.30, 0.6]],
        'ax' => ['J' => [0.32, 0.6], 'W' => [0.05, 0.3], 'F' => [0.0, 0.4], 'U' => [0.18, 0.4], 'L' => [0.25, 0.4]],
        'eh' => ['J' => [0.50, 1.0], 'W' => [0.45, 0.8], 'F' => [0.0, 1.0], 'U' => [0.35, 0.7], 'L' => [0.40, 0.7]],
        'ih' => ['J' => [0.28, 0.8], 'W' => [0.45, 0.7], 'F' => [0.0, 0.8], 'U' => [0.30, 0.6], 'L' => [0.40, 0.6]],
        'iy' => ['J' => [0.14, 0.9], 'W' => [1.0, 1.3], 'F' => [0.0, 1.0], 'U' => [0.45, 0.8], 'L' => [0.55, 0.8]],
        'ao' => ['J' => [0.62, 1.0], 'W' => [-0.30, 1.0], 'F' => [0.70, 1.0], 'U' => [0.05, 0.6], 'L' => [0.10, 0.6]],
        'uh' => ['J' => [0.25, 0.9], 'W' => [-0.45, 1.0], 'F' => [0.50, 1.0], 'U' => [0.05, 0.6], 'L' => [0.10, 0.6]],
        'uw' => ['J' => [0.12, 1.0], 'W' => [-1.0, 1.6], 'F' => [0.25, 1.0], 'U' => [0.0, 0.8], 'L' => [0.0, 0.8]],
        'er' => ['J' => [0.28, 0.8], 'W' => [-0.30, 0.8], 'F' => [0.50, 0.9], 'U' => [0.10, 0.6], 'L' => [0.15, 0.6]],
        'w' => ['J' => [0.06, 1.0], 'W' => [-1.1, 1.8], 'F' => [0.12, 1.0], 'U' => [0.0, 0.8], 'L' => [0.0, 0.8]],
        'r' => ['J' => [0.15, 0.8], 'W' => [-0.50, 0.9], 'F' => [0.40, 0.9], 'U' => [0.10, 0.5], 'L' => [0.15, 0.5]],
        'l' => ['J' => [0.36, 0.8], 'W' => [0.10, 0.3], 'F' => [0.0, 0.4], 'U' => [0.30, 0.6], 'L' => [0.35, 0.6], 'T' => [1.0, 1.5]],
        'n' => ['J' => [0.16, 0.7], 'T' => [0.8, 1.0]] + self::DENTAL, 't' => self::DENTAL, 'd' => self::DENTAL,
        's' => self::HISS, 'z' => self::HISS, 'sh' => self::HUSH, 'zh' => self::HUSH, 'ch' => self::HUSH, 'jh' => self::HUSH,
        'th' => self::BETWEEN_TEETH, 'dh' => self::BETWEEN_TEETH,
        'y' => ['J' => [0.12, 0.8], 'W' => [0.70, 0.7], 'F' => [0.0, 0.8], 'U' => [0.35, 0.6], 'L' => [0.45, 0.6]],
        'k' => self::BACK, 'g' => self::BACK, 'ng' => self::BACK,
        'hh' => ['J' => [0.30, 0.25], 'W' => [0.0, 0.05], 'F' => [0.0, 0.05], 'U' => [0.15, 0.1], 'L' => [0.20, 0.1]],
        'p' => self::SEAL, 'b' => self::SEAL, 'm' => self::SEAL, 'f' => self::TUCK, 'v' => self::TUCK,
        Phone::PAUSE => [
            'J' => [0.0, 0.9], 'W' => [0.0, 0.15], 'F' => [0.0, 0.25], 'U' => [0.0, 0.8], 'L' => [0.0, 0.8], 'T' => [0.0, 0.8],
            'O' => [0.0, 0.8],
        ],
    ];

    /** What the tongue does in sounds that say nothing of it. */
    private const TONGUE = ['T' => [0.0, 0.5], 'O' => [0.0, 0.5]];

    /** @return array<string, array{float, float}> target and hold by parameter; a sound that nobody knows is a weak vowel */
    public static function of(string $phone): array
    {
        return (self::TARGETS[$phone] ?? self::TARGETS['ax']) + self::TONGUE;
    }
}
