<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Pier;

/** The pier's palette, sRGB. */
final class PierColours
{
    public const DECK = [0x8A6A4E, 0x947355, 0x7D5F47, 0x9C7D60, 0x86684F, 0xA08468];

    public const HUT = [0x4F8079, 0x568A82, 0x48766F, 0x5D9088];

    public const ROOF = [0xA84F35, 0xB65A3C, 0x974630, 0xBF6844, 0x8D4431];

    public const CRATE = [0xB98D58, 0xA87C4C, 0xC79C66];

    public const PILE = 0x5D4838;

    public const BEAM = 0x6A5140;

    public const TRIM = 0xE6D3AE;

    public const DOOR = 0xC9773A;

    public const IRON = 0x39404A;

    public const WHITE = 0xE9DFC8;

    public const ROPE = 0xCFAE74;

    public const BRASS = 0xD9A441;

    public const BENCH = 0x3F6F8C;

    public const BELL = 0xD8A23C;

    public const POST = 0xE2CFA6;

    public const RED = 0xB8402F;

    public const HULL = 0x2F5D73;

    public const BAND = 0xE8D7B0;

    public const BOTTOM = 0x8E3B2C;

    public const HOUSE = 0xECE0C4;

    public const CART = 0x4D7A4A;

    public const CART_IRON = 0x3C3A3C;

    public const ENAMEL = 0xF3E8CF;

    public const INK = 0x2C2A33;
}
