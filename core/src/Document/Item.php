<?php

declare(strict_types=1);

namespace CrispReel\Core\Document;

/**
 * Something placed in the scene. Heading is the turn about +Y from +Z towards +X, degrees. Keys of its own move it in the
 * scene's space; a route drives it over the ground.
 */
final readonly class Item
{
    public const KINDS = ['performer', 'set', 'prop'];

    public const EASES = ['linear', 'in', 'out', 'inOut', 'hold'];

    /**
     * @param  array{float, float, float}  $position metres
     * @param  list<array{frame: int, position: array{float, float, float}, rotation: array{float, float, float, float}, ease: string}>  $moves  rising in time
     * @param  list<Wish>  $surfaces  other colours, pictures and finishes
     * @param  ClothKind|null  $cloth  what a cloth is made of; null: as its file says
     */
    public function __construct(
        public string $id,
        public string $kind,
        public string $name,
        public string $asset,
        public array $position,
        public float $headingDeg,
        public float $scale,
        public int $tape,
        public array $moves = [],
        public ?Route $route = null,
        public array $surfaces = [],
        public ?ClothKind $cloth = null,
    ) {
    }

    public static function from(Input $in): self
    {
        return new self(
            $in->id('id'), $in->choice('kind', self::KINDS), $in->text('name'), $in->id('asset'), $in->vector('position'),
            $in->number('headingDeg', 0.0, -36000, 36000), $in->number('scale', 1.0, 0.001, 1000), $in->whole('tape', 0, 0, 7),
            self::movesOf($in), Route::of($in), self::surfacesOf($in), ClothKind::of($in),
        );
    }

    /** @return list<array{frame: int, position: array{float, float, float}, rotation: array{float, float, float, float}, ease: string}> */
    private static function movesOf(Input $in): array
    {
        $keys = [];
        foreach ($in->each('moves', 5000) as $k) {
            $keys[] = [
                'frame' => $k->whole('frame', null, 0),
                'position' => $k->vector('position'),
                'rotation' => $k->has('rotation') ? $k->quaternion('rotation') : [0.0, 0.0, 0.0, 1.0],
                'ease' => $k->choice('ease', self::EASES, 'inOut'),
            ];
        }
        usort($keys, static fn (array $a, array $b): int => $a['frame'] <=> $b['frame']);

        return $keys;
    }

    /** @return list<Wish> */
    private static function surfacesOf(Input $in): array
    {
        $out = [];
        foreach ($in->each('surfaces', 200) as $s) {
            $colour = $s->has('colour') ? $s->text('colour', null, 7) : null;
            $picture = $s->has('picture') ? $s->text('picture', null, 64) : null;
            if ($colour !== null && preg_match('/^#[0-9a-f]{6}$/', $colour) !== 1) {
                throw UnableToReadDocument::at($s->path('colour'), "\"{$colour}\" is not a colour", 'Write it as #rrggbb.');
            }
            if ($picture !== null && preg_match('/^[0-9a-f]{64}$/', $picture) !== 1) {
                throw UnableToReadDocument::at($s->path('picture'), 'it is not the hash of a picture');
            }
            $out[] = new Wish(
                $s->text('key'),
                $colour,
                $s->has('finish') ? $s->choice('finish', array_keys(Wish::FINISHES)) : null,
                $picture,
                $s->number('metres', 1.0, 0.01, 100),
                $s->has('variant') ? $s->text('variant') : null,
            );
        }

        return $out;
    }

    /** Whether it goes anywhere by itself. */
    public function moves(): bool
    {
        return $this->moves !== [] || $this->route !== null;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id, 'kind' => $this->kind, 'name' => $this->name, 'asset' => $this->asset,
            'position' => $this->position, 'headingDeg' => $this->headingDeg, 'scale' => $this->scale, 'tape' => $this->tape,
            'moves' => $this->moves, 'route' => $this->route?->toArray(),
            'surfaces' => array_map(static fn (Wish $w): array => $w->toArray(), $this->surfaces), 'cloth' => $this->cloth?->toArray(),
        ];
    }
}
