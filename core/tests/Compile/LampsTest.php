<?php

declare(strict_types=1);

use CrispReel\Core\Compile\Draft;
use CrispReel\Core\Compile\Passes\Lamps;
use CrispReel\Core\Compile\Passes\Places;
use CrispReel\Core\Document\AssetRef;
use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Moods;
use CrispReel\Core\Tests\Support\Scenes;

/** Notes of a scene with things of two lamps each, so many metres from each other. @return list<Finding> */
function lampNotes(int $things, float $apart): array
{
    $assets = new class implements AssetSource
    {
        public function digest(AssetRef $asset): array
        {
            return ['extras' => ['lamps' => [['power' => 1.0], ['power' => 1.0]]]];
        }

        public function blob(AssetRef $asset): string
        {
            return '';
        }

        public function solved(string $key): ?string
        {
            return null;
        }

        public function keep(string $key, string $bytes): void
        {
        }
    };
    $items = array_map(static fn (int $k): array => Scenes::item("l{$k}", 'lantern', $apart * $k), $things > 0 ? range(1, $things) : []);
    $draft = new Draft(Document::fromArray(Scenes::data(['items' => $items])), $assets);
    (new Places)->settle($draft);
    (new Lamps)->settle($draft);

    return (fn (): array => $this->notes)->call($draft);
}

test('more lamps in one place than the drawing lights are named', function (): void {
    expect(lampNotes(0, 1.0))->toBe([])->and(lampNotes(2, 1.0))->toBe([])->and(lampNotes(6, 9.0))->toBe([]);
    $notes = lampNotes(3, 1.0);
    expect($notes)->toHaveCount(1)->and($notes[0]->code)->toBe('light.lamps')->and($notes[0]->about)->toBe(['l1'])
        ->and($notes[0]->sentence)->toBe('6 lamps stand close together ("l1", "l2", "l3"); 4 at a time give light.');
});

test('every mood has a look with the same numbers, colours that are colours, and one for a name that is none', function (): void {
    $keys = array_keys(Moods::look('neutral'));
    expect(Moods::names())->toBe(['dusk', 'night', 'fog', 'neutral'])->and(Moods::look('noon'))->toBe(Moods::look('neutral'));
    foreach (Moods::names() as $name) {
        $look = Moods::look($name);
        expect(array_keys($look))->toEqualCanonicalizing($keys, $name);
        foreach ($look as $key => $value) {
            if (is_array($value) && is_string($value[0] ?? null)) {
                expect($value[0])->toMatch('/^#[0-9a-f]{6}$/', "{$name} {$key}")->and($value[1])->toBeGreaterThanOrEqual(0);
            }
        }
    }
});
