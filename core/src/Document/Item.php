<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

use CrispReel\Core\Document\Fields\Choice;
use CrispReel\Core\Document\Fields\Id;
use CrispReel\Core\Document\Fields\Many;
use CrispReel\Core\Document\Fields\Number;
use CrispReel\Core\Document\Fields\OfFields;
use CrispReel\Core\Document\Fields\Part;
use CrispReel\Core\Document\Fields\Ref;
use CrispReel\Core\Document\Fields\Row;
use CrispReel\Core\Document\Fields\Text;
use CrispReel\Core\Document\Fields\Vector;
use CrispReel\Core\Document\Fields\Whole;
use CrispReel\Core\Document\Fields\Yes;
use CrispReel\Core\Speech\Emotions;

/**
 * Something placed in the scene. Heading is the turn about +Y from +Z towards +X, degrees. Keys of its own move it in the
 * scene's space; a route drives it over the ground.
 */
#[Row('items', 'i', 'item')]
final readonly class Item
{
    use OfFields;

    public const KINDS = ['performer', 'set', 'prop'];

    /** What somebody is like while nothing else is said; "off" is as still as the pose. */
    public const LIVES = ['calm', 'tense', 'cold', 'tired', 'off'];

    /**
     * @param  array{float, float, float}  $position metres
     * @param  list<Move>  $moves  rising in time
     * @param  list<Wish>  $surfaces  other colours, pictures and finishes
     * @param  ClothKind|null  $cloth  what a cloth is made of; null: as its file says
     * @param  float  $fullness  how much of what lies around a place is there, 0 bare to 1
     * @param  string  $life  how a body breathes, blinks and shifts where its motions do nothing
     * @param  bool  $meets  looks by itself at whom it speaks to, hands something or has to do with
     * @param  string  $voice  one of the house's voices; empty: one that suits
     * @param  string  $resting  what shows in the face while nothing else does, and how much of it
     * @param  string  $underfoot  what steps on it sound like; auto: as its name has it
     * @param  bool  $locked  no hand moves it until it is unlocked
     */
    public function __construct(
        #[Id] public string $id,
        #[Choice(self::KINDS)] public string $kind,
        #[Text(80)] public string $name,
        #[Ref(AssetRef::class, column: 'asset_id', row: 'assetId')] public string $asset,
        #[Vector(columns: ['x', 'y', 'z'], place: true)] public array $position,
        #[Number(-36000, 36000, 'deg')] public float $headingDeg = 0.0,
        #[Number(0.001, 1000)] public float $scale = 1.0,
        #[Whole(0, 7)] public int $tape = 0,
        #[Many(Move::class, most: 5000)] public array $moves = [],
        #[Part(Route::class)] public ?Route $route = null,
        #[Many(Wish::class, most: 200, by: 'key')] public array $surfaces = [],
        #[Part(ClothKind::class)] public ?ClothKind $cloth = null,
        #[Yes] public bool $locked = false,
        #[Number(0, 1)] public float $fullness = 1.0,
        #[Choice(self::LIVES)] public string $life = 'calm',
        #[Yes] public bool $meets = true,
        #[Text(40)] public string $voice = '',
        #[Choice([Emotions::NONE, ...Emotions::NAMES])] public string $resting = Emotions::NONE,
        #[Number(0, 1.2)] public float $restingAmount = 0.5,
        #[Choice(['auto', ...Underfoot::KINDS])] public string $underfoot = 'auto',
    ) {
    }

    /** Whether it goes anywhere by itself. */
    public function moves(): bool
    {
        return $this->moves !== [] || $this->route !== null;
    }
}
