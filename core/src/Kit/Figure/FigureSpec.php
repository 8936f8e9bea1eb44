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
     * @param  string  $hair  bun | cropped
     * @param  bool  $beard  full beard with moustache
     * @param  string  $hat  none | cap
     * @param  string  $top  coat (to the knee) | jacket (to the hip)
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
                name: 'Mirre Tolland', heightMetres: 1.62, build: 0.15, head: 1.14, nose: 0.35, jaw: 0.15, eyes: 0.9, age: 0.05, hair: 'bun', top: 'jacket', neck: 'scarf', bag: true, seed: 12,
                colours: $common + [
                    'skin' => 0x9A6444, 'blush' => 0x8E4B38, 'nose' => 0x8D5640, 'hair' => 0x2A1C18, 'top' => 0x3E6B4F, 'lining' => 0x22382B, 'cuff' => 0x2F5240, 'neck' => 0xE2C68A, 'legs' => 0x5B4A63, 'boot' => 0x4A3428,
                    'bag' => 0x6E4A33, 'strap' => 0x573927, 'button' => 0xC8B58A, 'brow' => 0x241713, 'iris' => 0x4A3122, 'lip' => 0x8E4138,
                ],
            ),
            'jory-vance' => new self(
                name: 'Jory Vance', heightMetres: 1.80, build: 0.55, head: 1.08, nose: 0.8, jaw: 0.7, eyes: 0.2, age: 0.55, hair: 'cropped', top: 'coat', neck: 'rollneck', glasses: true, seed: 17,
                colours: $common + [
                    'skin' => 0xE0B294, 'blush' => 0xD18A70, 'nose' => 0xD4906F, 'hair' => 0x8A7A66, 'top' => 0x5A5F66, 'lining' => 0x33363B, 'cuff' => 0x484C53, 'neck' => 0x9C4A3A, 'legs' => 0x3D3A40, 'boot' => 0x2A2422,
                    'button' => 0x8F8A80, 'brow' => 0x75664F, 'iris' => 0x5C7385, 'lip' => 0xB66B5C,
                ],
            ),
            'sefa-quill' => new self(
                name: 'Sefa Quill', heightMetres: 1.55, build: 0.8, head: 1.15, nose: 0.6, jaw: 0.4, eyes: 0.6, age: 0.3, hair: 'cropped', hat: 'cap', top: 'jacket', neck: 'scarf', seed: 23,
                colours: $common + [
                    'skin' => 0xC78F6A, 'blush' => 0xB46A50, 'nose' => 0xB9704F, 'hair' => 0x4B3423, 'top' => 0xB5803A, 'lining' => 0x5F4420, 'cuff' => 0x8C622C, 'neck' => 0x3F6E78, 'legs' => 0x4C5240, 'boot' => 0x5A4030,
                    'hat' => 0x5B3A2E, 'band' => 0xC9A35E, 'peak' => 0x3A261F, 'button' => 0xE0CFA0, 'brow' => 0x3E2A1C, 'iris' => 0x3F5D4A, 'lip' => 0xA8574A,
                ],
            ),
        ];
    }

    /** A number between the slight and the broad body. */
    public function body(float $slight, float $broad): float
    {
        return $slight + ($broad - $slight) * $this->build;
    }
}
