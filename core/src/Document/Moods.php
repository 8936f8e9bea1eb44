<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/**
 * What the moods of light look like, in numbers for the drawing: the one place where they stand. A colour is sRGB with a factor; a
 * direction points to where the light comes from.
 *
 * @phpstan-type Look array<string, mixed>
 */
final class Moods
{
    /** Lamps that the drawing lights at a time: those nearest to the camera. */
    public const LAMPS = 4;

    private const LOOKS = [
        'dusk' => [
            'exposure' => 1.22,
            'halo' => 0.4,
            'grade' => ['contrast' => 0.78, 'saturation' => 1.28, 'gain' => [1.02, 1, 0.98], 'lift' => [0.002, 0.001, 0.004]],
            'sunDir' => [-0.235, 0.062, -0.97],
            'keyDir' => [-0.66, 0.5, 0.46],
            'keyColour' => ['#ffa05a', 4.3],
            'rimDir' => [0.7, 0.45, -0.55],
            'rimColour' => ['#7d9be8', 0.35],
            'skyAmbient' => ['#7a98ee', 0.86],
            'groundAmbient' => ['#a07068', 0.42],
            'warmAmbient' => ['#ff9a5c', 0.18],
            'wash' => [0.6, 0.4, 0.38],
            'wrap' => 0.18,
            'lampA' => ['#ffae58', 1.1],
            'lampB' => ['#ffae58', 0.8],
            'glow' => 0.62,
            'hazeCool' => ['#8e9cc8', 0.7],
            'hazeWarm' => ['#ffb682', 0.95],
            'hazeDensity' => 0.0074,
            'hazeLow' => 0.04,
            'zenith' => ['#4f6fc0', 0.55],
            'middle' => ['#c08fb0', 0.72],
            'horizon' => ['#ffb67e', 0.82],
            'sunGlow' => ['#ff8a3c', 1.15],
            'disc' => ['#ffdf9a', 1.5],
            'discRadius' => 0.027,
            'cloud' => ['#8a86b0', 0.7],
            'cloudLit' => ['#ffb48a', 1.15],
            'cloudAmount' => 1,
            'waterDeep' => ['#1c4a66', 0.55],
            'waterShallow' => ['#3f7f8c', 0.55],
            'glitter' => 1,
            'ground' => ['#7d6a58', 0.8],
        ],
        'night' => [
            'exposure' => 1.55,
            'halo' => 1.4,
            'grade' => ['contrast' => 0.5, 'saturation' => 1.15, 'gain' => [1, 1, 1.03], 'lift' => [0.001, 0.002, 0.006]],
            'sunDir' => [-0.2, 0.085, -0.97],
            'keyDir' => [-0.6, 0.6, 0.4],
            'keyColour' => ['#8fb0ff', 0.95],
            'rimDir' => [0.7, 0.45, -0.55],
            'rimColour' => ['#7f9cf0', 0.3],
            'skyAmbient' => ['#5a78c8', 0.34],
            'groundAmbient' => ['#4a5270', 0.16],
            'warmAmbient' => ['#7a96e0', 0.05],
            'wash' => [0.5, 0.46, 0.55],
            'wrap' => 0.25,
            'lampA' => ['#ffa450', 3.0],
            'lampB' => ['#ffa450', 2.7],
            'glow' => 1.45,
            'hazeCool' => ['#3a4a7a', 0.3],
            'hazeWarm' => ['#7f97d0', 0.38],
            'hazeDensity' => 0.012,
            'hazeLow' => 0.05,
            'zenith' => ['#16224a', 0.5],
            'middle' => ['#2f4480', 0.5],
            'horizon' => ['#6a80b8', 0.42],
            'sunGlow' => ['#9db8ff', 0.34],
            'disc' => ['#f4f0dc', 1.7],
            'discRadius' => 0.02,
            'cloud' => ['#2a3868', 0.4],
            'cloudLit' => ['#8ea6dc', 0.5],
            'cloudAmount' => 0.8,
            'waterDeep' => ['#0e1e3c', 0.4],
            'waterShallow' => ['#1d3a60', 0.4],
            'glitter' => 0.8,
            'ground' => ['#4a4a58', 0.7],
        ],
        'fog' => [
            'exposure' => 1.05,
            'halo' => 1.0,
            'grade' => ['contrast' => 0.95, 'saturation' => 1.28, 'gain' => [1, 1, 1], 'lift' => [0.004, 0.005, 0.007]],
            'sunDir' => [-0.2, 0.1, -0.97],
            'keyDir' => [-0.6, 0.7, 0.25],
            'keyColour' => ['#ffdcb0', 1.5],
            'rimDir' => [0.7, 0.45, -0.55],
            'rimColour' => ['#c8d8e8', 0.15],
            'skyAmbient' => ['#b4cbe0', 0.95],
            'groundAmbient' => ['#9a9088', 0.5],
            'warmAmbient' => ['#ffe0b8', 0.25],
            'wash' => [0.55, 0.48, 0.46],
            'wrap' => 0.45,
            'lampA' => ['#ffb868', 1.2],
            'lampB' => ['#ffb868', 1.0],
            'glow' => 1.4,
            'hazeCool' => ['#a9c0cc', 0.66],
            'hazeWarm' => ['#e2d6bc', 0.72],
            'hazeDensity' => 0.062,
            'hazeLow' => 0.1,
            'zenith' => ['#a2bccc', 0.62],
            'middle' => ['#b4c8d0', 0.66],
            'horizon' => ['#c8cfc8', 0.7],
            'sunGlow' => ['#ffe9c4', 0.22],
            'disc' => ['#ffe9c0', 0.5],
            'discRadius' => 0.03,
            'cloud' => ['#b0bec8', 0.8],
            'cloudLit' => ['#dde0da', 0.9],
            'cloudAmount' => 0.25,
            'waterDeep' => ['#4a6a72', 0.6],
            'waterShallow' => ['#7a969a', 0.6],
            'glitter' => 0.25,
            'ground' => ['#8a8a82', 0.8],
        ],
        'neutral' => [
            'exposure' => 1.08,
            'halo' => 0.3,
            'grade' => ['contrast' => 0.72, 'saturation' => 1.22, 'gain' => [1, 1, 1], 'lift' => [0, 0, 0]],
            'sunDir' => [0.2, 0.5, -0.84],
            'keyDir' => [-0.5, 0.66, 0.56],
            'keyColour' => ['#fff0dc', 3.1],
            'rimDir' => [0.7, 0.45, -0.55],
            'rimColour' => ['#c8d8ff', 0.4],
            'skyAmbient' => ['#b8c8e6', 0.85],
            'groundAmbient' => ['#b09a88', 0.5],
            'warmAmbient' => ['#ffe6c8', 0.12],
            'wash' => [0.6, 0.48, 0.44],
            'wrap' => 0.22,
            'lampA' => ['#ffb868', 0.8],
            'lampB' => ['#ffb868', 0.8],
            'glow' => 0.8,
            'hazeCool' => ['#c9c2b4', 0.85],
            'hazeWarm' => ['#d8cfbd', 0.9],
            'hazeDensity' => 0.004,
            'hazeLow' => 0,
            'zenith' => ['#cfd6de', 0.85],
            'middle' => ['#d9d5cc', 0.85],
            'horizon' => ['#d8cfbd', 0.9],
            'sunGlow' => ['#fff0d8', 0.1],
            'disc' => ['#ffffff', 0],
            'discRadius' => 0.01,
            'cloud' => ['#d9d5cc', 0.8],
            'cloudLit' => ['#e9e5dc', 0.9],
            'cloudAmount' => 0,
            'waterDeep' => ['#4a6a72', 0.6],
            'waterShallow' => ['#7a969a', 0.6],
            'glitter' => 0.2,
            'ground' => ['#cbbfa9', 0.78],
        ],
    ];

    /** @return list<string> */
    public static function names(): array
    {
        return array_keys(self::LOOKS);
    }

    /** @return Look  of a mood; the plain one's for a name that is none */
    public static function look(string $mood): array
    {
        return self::LOOKS[$mood] ?? self::LOOKS['neutral'];
    }
}
