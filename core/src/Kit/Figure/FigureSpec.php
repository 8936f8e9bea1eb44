<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

/**
 * What a person looks like: sliders, clothes and colours. Everything a figure is made of follows from this.
 */
final readonly class FigureSpec
{
    /**
     * @param  float  $heightMetres  crown without hair or hat
     * @param  float  $build  0 slight, 1 broad
     * @param  float  $head  head size over life size; 1.12 makes about five heads to a body
     * @param  float  $age  0 young, 1 old: hollow cheeks, lower lids
     * @param  string  $hair  one of HairMaker::STYLES
     * @param  bool  $beard  full beard with moustache
     * @param  string  $hat  one of HairMaker::HATS
     * @param  string  $top  coat and dress (to the knee) | jacket and jumper (to the hip)
     * @param  string  $neck  scarf | rollneck
     * @param  array<string, int>  $colours  sRGB by part
     */
    public function __construct(
        public string $name,
        public float $heightMetres = 1.70,
        public float $build = 0.0,
        public float $head = 1.12,
        public float $nose = 0.5,
        public float $jaw = 0.5,
        public float $eyes = 0.5,
        public float $age = 0.4,
        public string $hair = 'cropped',
        public bool $beard = false,
        public string $hat = 'none',
        public string $top = 'jacket',
        public string $neck = 'rollneck',
        public bool $glasses = false,
        public bool $bag = false,
        public bool $paperBoat = false,
        public int $seed = 1,
        public array $colours = [],
    ) {
    }

    public static function oda(): self
    {
        return new self(
            name: 'Oda Ferrant', heightMetres: 1.70, build: 0.0, head: 1.13, nose: 0.0, jaw: 0.0, eyes: 1.0, age: 0.7,
            hair: 'bun', top: 'coat', neck: 'scarf', glasses: true, bag: true, seed: 3,
            colours: [
                'skin' => 0xDBA27C, 'blush' => 0xC96F58, 'nose' => 0xCF7D62, 'hair' => 0xB9B4AD, 'top' => 0x7A3347,
                'lining' => 0x3C2430, 'cuff' => 0x4E2433, 'neck' => 0xD29A3C, 'legs' => 0x4A4A58, 'boot' => 0x5A3A28,
                'sole' => 0x2C211C, 'bag' => 0x9A6236, 'strap' => 0x7D4B28, 'metal' => 0xC9A049, 'button' => 0xD8B878,
                'brow' => 0x8D8781, 'iris' => 0x4D6F63, 'lip' => 0xB2584C,
            ],
        );
    }

    public static function bram(): self
    {
        return new self(
            name: 'Bram Tiel', heightMetres: 1.74, build: 1.0, head: 1.10, nose: 1.0, jaw: 1.0, eyes: 0.0, age: 0.4,
            hair: 'cropped', beard: true, hat: 'cap', top: 'jacket', neck: 'rollneck', paperBoat: true, seed: 7,
            colours: [
                'skin' => 0xC98A62, 'blush' => 0xB5684A, 'nose' => 0xB8694C, 'hair' => 0x6A3A20, 'top' => 0x24395A,
                'lining' => 0x16202E, 'cuff' => 0x223347, 'neck' => 0xE6D8B8, 'legs' => 0x7B6A4C, 'boot' => 0x2A2624,
                'sole' => 0x6B5A44, 'hat' => 0x1F2E40, 'band' => 0x8A5A32, 'peak' => 0x1D1B1C, 'metal' => 0xC9A049,
                'button' => 0xD3A94A, 'brow' => 0x5F321D, 'iris' => 0x4A6A86, 'lip' => 0xA75443, 'paper' => 0xF1ECDD,
            ],
        );
    }

    /** @return array<string, self> by slug: people who wait, for scenes that need more than two */
    public static function passengers(): array
    {
        $common = ['metal' => 0xB9A06A, 'sole' => 0x2E2723];

        return [
            'mirre-tolland' => new self(
                name: 'Mirre Tolland', heightMetres: 1.62, build: 0.15, head: 1.14, nose: 0.35, jaw: 0.15, eyes: 0.9, age: 0.05,
                hair: 'bun', top: 'jacket', neck: 'scarf', bag: true, seed: 12,
                colours: $common + [
                    'skin' => 0x9A6444, 'blush' => 0x8E4B38, 'nose' => 0x8D5640, 'hair' => 0x2A1C18, 'top' => 0x3E6B4F,
                    'lining' => 0x22382B, 'cuff' => 0x2F5240, 'neck' => 0xE2C68A, 'legs' => 0x5B4A63, 'boot' => 0x4A3428,
                    'bag' => 0x6E4A33, 'strap' => 0x573927, 'button' => 0xC8B58A, 'brow' => 0x241713, 'iris' => 0x4A3122, 'lip' => 0x8E4138,
                ],
            ),
            'jory-vance' => new self(
                name: 'Jory Vance', heightMetres: 1.80, build: 0.55, head: 1.08, nose: 0.8, jaw: 0.7, eyes: 0.2, age: 0.55,
                hair: 'cropped', top: 'coat', neck: 'rollneck', glasses: true, seed: 17,
                colours: $common + [
                    'skin' => 0xE0B294, 'blush' => 0xD18A70, 'nose' => 0xD4906F, 'hair' => 0x8A7A66, 'top' => 0x5A5F66,
                    'lining' => 0x33363B, 'cuff' => 0x484C53, 'neck' => 0x9C4A3A, 'legs' => 0x3D3A40, 'boot' => 0x2A2422,
                    'button' => 0x8F8A80, 'brow' => 0x75664F, 'iris' => 0x5C7385, 'lip' => 0xB66B5C,
                ],
            ),
            'sefa-quill' => new self(
                name: 'Sefa Quill', heightMetres: 1.55, build: 0.8, head: 1.15, nose: 0.6, jaw: 0.4, eyes: 0.6, age: 0.3, hair: 'cropped',
                hat: 'cap', top: 'jacket', neck: 'scarf', seed: 23,
                colours: $common + [
                    'skin' => 0xC78F6A, 'blush' => 0xB46A50, 'nose' => 0xB9704F, 'hair' => 0x4B3423, 'top' => 0xB5803A,
                    'lining' => 0x5F4420, 'cuff' => 0x8C622C, 'neck' => 0x3F6E78, 'legs' => 0x4C5240, 'boot' => 0x5A4030,
                    'hat' => 0x5B3A2E, 'band' => 0xC9A35E, 'peak' => 0x3A261F, 'button' => 0xE0CFA0, 'brow' => 0x3E2A1C,
                    'iris' => 0x3F5D4A, 'lip' => 0xA8574A,
                ],
            ),
        ];
    }

    public const TOPS = ['jacket', 'coat', 'jumper', 'dress'];

    public const NECKS = ['rollneck', 'scarf'];

    /** Parts that have a colour of their own, and what they are called. */
    public const PARTS = [
        'skin' => 'Skin', 'hair' => 'Hair', 'top' => 'Top', 'legs' => 'Legs', 'neck' => 'Neck', 'boot' => 'Boots', 'hat' => 'Hat',
        'iris' => 'Eyes',
    ];

    /** Clothes of the second and third colourway, top, legs, neck, boot, hat, and what one would call them. */
    private const WAYS = [
        [0x4F6F8F, 0x5A4A3C, 0xE3CFA6, 0x3B2D28, 0x6B3A34, 'blue'], [0xB4763C, 0x3E4A54, 0x7E9A86, 0x53382A, 0x2F4A46, 'ochre'],
        [0x6C5A86, 0x4B4B3F, 0xD9A25A, 0x2F2A2C, 0x44506B, 'violet'],
        [0x3F6B5A, 0x6A5545, 0xC9625A, 0x4A3428, 0x8A6A3A, 'green'], [0xA34A44, 0x38424E, 0xE7DDC2, 0x2E2624, 0x3D3438, 'red'],
        [0x7A7F52, 0x4E3F4A, 0xB5563C, 0x5B4030, 0x52583A, 'olive'],
    ];

    /**
     * The other three of the house: two children and an old man.
     *
     * @return array<string, self> by slug
     */
    public static function neighbours(): array
    {
        $common = ['metal' => 0xB9A06A, 'sole' => 0x2E2723, 'strap' => 0x6E4A33, 'button' => 0xE0CFA0];

        return [
            'pim-alder' => new self(
                name: 'Pim Alder', heightMetres: 1.22, build: 0.25, head: 1.36, nose: 0.25, jaw: 0.1, eyes: 1.0, age: 0.0, hair: 'curly',
                top: 'jumper', neck: 'rollneck', seed: 31,
                colours: $common + [
                    'skin' => 0x8A5A3C, 'blush' => 0x7E4430, 'nose' => 0x7C4A34, 'hair' => 0x2B1D17, 'top' => 0xC9973A,
                    'lining' => 0x5E4620, 'cuff' => 0x2F6672, 'neck' => 0xC9973A, 'legs' => 0x4A5666, 'boot' => 0x7A3B2E,
                    'brow' => 0x251812, 'iris' => 0x3E2A1E, 'lip' => 0x80402F,
                ],
            ),
            'lotte-farrow' => new self(
                name: 'Lotte Farrow', heightMetres: 1.36, build: 0.1, head: 1.30, nose: 0.1, jaw: 0.1, eyes: 0.95, age: 0.0,
                hair: 'plaits', top: 'dress', neck: 'scarf', glasses: true, seed: 37,
                colours: $common + [
                    'skin' => 0xE8BE9C, 'blush' => 0xDB8F72, 'nose' => 0xDE9C7C, 'hair' => 0xB0662E, 'top' => 0x3F6E78,
                    'lining' => 0x234046, 'cuff' => 0xE9DDC0, 'neck' => 0xC9625A, 'legs' => 0x6A5545, 'boot' => 0x4A2F28,
                    'brow' => 0x8A4E24, 'iris' => 0x4F7A5C, 'lip' => 0xC06A5A,
                ],
            ),
            'corvin-hale' => new self(
                name: 'Corvin Hale', heightMetres: 1.66, build: 0.45, head: 1.14, nose: 0.9, jaw: 0.5, eyes: 0.3, age: 1.0, hair: 'bald',
                beard: true, top: 'jumper', neck: 'rollneck', glasses: true, seed: 41,
                colours: $common + [
                    'skin' => 0xD9A987, 'blush' => 0xC77C62, 'nose' => 0xC98268, 'hair' => 0xD9D4CA, 'top' => 0x5B6B4A,
                    'lining' => 0x333C2B, 'cuff' => 0x465438, 'neck' => 0x8C8F78, 'legs' => 0x5A5048, 'boot' => 0x3A2E28,
                    'brow' => 0xC9C3B6, 'iris' => 0x6A8296, 'lip' => 0xA8604F,
                ],
            ),
        ];
    }

    /**
     * All eight of the house.
     *
     * @return array<string, self> by slug
     */
    public static function house(): array
    {
        return ['oda-ferrant' => self::oda(), 'bram-tiel' => self::bram()] + self::passengers() + self::neighbours();
    }

    /** The same person in other clothes: colourway 1 is as written, 2 and 3 take others. */
    public function colourway(int $number): self
    {
        if ($number <= 1) {
            return $this;
        }
        [$top, $legs, $neck, $boot, $hat, $called] = self::WAYS[($this->seed * 2 + $number) % count(self::WAYS)];
        $dark = static fn (int $c, float $k): int => ((int) (($c >> 16 & 255) * $k) << 16) | ((int) (($c >> 8 & 255) * $k) << 8)
            | (int) (($c & 255) * $k);

        return $this->with([
            'name' => "{$this->name} in {$called}",
            'colours' => [
                'top' => $top, 'lining' => $dark($top, 0.5), 'cuff' => $dark($top, 0.72), 'legs' => $legs, 'neck' => $neck,
                'boot' => $boot, 'hat' => $hat, 'peak' => $dark($hat, 0.6), 'band' => $neck,
            ] + $this->colours,
        ]);
    }

    /** @param  array<string, mixed>  $values  constructor arguments by name */
    public function with(array $values): self
    {
        return self::fromArray($values + $this->toArray());
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        /** @var array<string, mixed> $values */
        $values = get_object_vars($this);

        return $values;
    }

    /**
     * Sliders from outside, each brought to its range.
     *
     * @param  array<string, mixed>  $a
     */
    public static function fromArray(array $a): self
    {
        $n = static fn (string $k, float $low, float $high, float $unset): float => is_int($a[$k] ?? null) || is_float($a[$k] ?? null)
            ? max($low, min($high, (float) $a[$k]))
            : $unset;
        $one = static fn (string $k, array $of, string $unset): string => is_string($a[$k] ?? null) && in_array($a[$k], $of, true)
            ? $a[$k]
            : $unset;
        $yes = static fn (string $k): bool => ($a[$k] ?? false) === true;
        $colours = self::oda()->colours + self::bram()->colours;
        foreach (is_array($a['colours'] ?? null) ? $a['colours'] : [] as $part => $c) {
            if (is_string($part) && is_int($c) && $c >= 0 && $c <= 0xFFFFFF) {
                $colours[$part] = $c;
            }
        }

        return new self(
            name: is_string($a['name'] ?? null) && trim($a['name']) !== '' ? mb_substr(trim($a['name']), 0, 80) : 'New figure',
            heightMetres: $n('heightMetres', 0.9, 2.1, 1.70), build: $n('build', 0.0, 1.0, 0.3), head: $n('head', 1.0, 1.45, 1.12),
            nose: $n('nose', 0.0, 1.0, 0.5),
            jaw: $n('jaw', 0.0, 1.0, 0.5), eyes: $n('eyes', 0.0, 1.0, 0.5), age: $n('age', 0.0, 1.0, 0.3),
            hair: $one('hair', HairMaker::STYLES, 'cropped'), beard: $yes('beard'), hat: $one('hat', HairMaker::HATS, 'none'),
            top: $one('top', self::TOPS, 'jacket'),
            neck: $one('neck', self::NECKS, 'rollneck'), glasses: $yes('glasses'), bag: $yes('bag'), paperBoat: $yes('paperBoat'),
            seed: (int) $n('seed', 1.0, 9999.0, 1.0), colours: $colours,
        );
    }

    /** Somebody by chance: the same seed gives the same person. */
    public static function random(int $seed): self
    {
        $h = static fn (int $k): float => \CrispReel\Core\Math\Noise::hash($k, $seed);
        $at = static fn (int $k, int $count): int => (int) floor($h($k) * $count) % $count;
        $tint = static fn (int $k, array $of): int => self::tint($of, $h($k));
        $pick = static fn (int $k, array $of): string => self::pick($of, $h($k));
        $old = $h(1) > 0.72;
        $child = ! $old && $h(2) > 0.78;
        $skin = $tint(3, [0xE8BE9C, 0xDBA27C, 0xC98A62, 0xA8714C, 0x8A5A3C, 0x6B432C]);
        $shade = static fn (int $c, float $r, float $g, float $b): int => ((int) (($c >> 16 & 255) * $r) << 16)
            | ((int) (($c >> 8 & 255) * $g) << 8) | (int) (($c & 255) * $b);
        $hair = $old ? $tint(4, [0xD9D4CA, 0xB9B4AD, 0x8D8781]) : $tint(4, [0x2B1D17, 0x4B3423, 0x6A3A20, 0xB0662E, 0xC9A05A]);
        [$top, $legs, $neck, $boot, $hat] = self::WAYS[$at(5, count(self::WAYS))];

        return self::fromArray([
            'name' => 'New figure', 'heightMetres' => $child ? 1.1 + 0.35 * $h(6) : 1.52 + 0.34 * $h(6), 'build' => $h(7),
            'head' => $child ? 1.3 + 0.08 * $h(8) : 1.08 + 0.08 * $h(8), 'nose' => $h(9), 'jaw' => $child ? 0.1 : $h(10),
            'eyes' => $child ? 0.9 : $h(11), 'age' => $old ? 0.75 + 0.25 * $h(12) : ($child ? 0.0 : 0.5 * $h(12)),
            'hair' => $pick(13, $old ? ['bun', 'cropped', 'bald', 'bob'] : [
                'cropped', 'long', 'bob', 'curly', 'ponytail', 'plaits', 'bun',
            ]),
            'beard' => ! $child && $h(14) > 0.72, 'hat' => $pick(15, ['none', 'none', 'none', 'cap', 'knit', 'brim']),
            'top' => $pick(16, self::TOPS), 'neck' => $pick(17, self::NECKS), 'glasses' => $h(18) > 0.7, 'bag' => $h(19) > 0.8,
            'seed' => $seed, 'colours' => [
                'skin' => $skin, 'blush' => $shade($skin, 0.92, 0.72, 0.72), 'nose' => $shade($skin, 0.93, 0.78, 0.78),
                'lip' => $shade($skin, 0.82, 0.55, 0.55), 'hair' => $hair, 'brow' => $shade($hair, 0.8, 0.75, 0.72),
                'iris' => $tint(20, [0x4D6F63, 0x4A6A86, 0x3E2A1E, 0x6A8296]),
                'top' => $top, 'lining' => $shade($top, 0.5, 0.5, 0.5), 'cuff' => $shade($top, 0.72, 0.72, 0.72), 'legs' => $legs,
                'neck' => $neck, 'boot' => $boot, 'hat' => $hat, 'peak' => $shade($hat, 0.6, 0.6, 0.6), 'band' => $neck,
            ],
        ]);
    }

    /** @param  array<array-key, mixed>  $of */
    private static function tint(array $of, float $share): int
    {
        $v = $of[(int) floor($share * count($of)) % max(1, count($of))] ?? 0;

        return is_int($v) ? $v : 0;
    }

    /** @param  array<array-key, mixed>  $of */
    private static function pick(array $of, float $share): string
    {
        $v = $of[(int) floor($share * count($of)) % max(1, count($of))] ?? '';

        return is_string($v) ? $v : '';
    }

    /** A number between the slight and the broad body. */
    public function body(float $slight, float $broad): float
    {
        return $slight + ($broad - $slight) * $this->build;
    }
}
