<?php

declare(strict_types=1);

use App\Exceptions\UserError;
use App\Models\Scene;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Random;

/**
 * Edits as hands make them: each asks the scene what there is and does something to it.
 *
 * @return array<string, Closure(array<string, list<array<string, mixed>>>, Random): list<array<string, mixed>>>
 */
function hands(): array
{
    $ids = static fn (array $rows, string $table, ?string $kind = null): array => array_column(
        $kind === null ? $rows[$table] : array_filter($rows[$table], static fn (array $r): bool => $r['kind'] === $kind),
        'id',
    );
    $one = static fn (array $list, Random $r): int => $list === [] ? 999999 : $r->pick(array_values($list));
    $metre = static fn (Random $r): float => round(4 * $r->signed(), 2);
    $frame = static fn (Random $r, int $most = 120): int => (int) ($most * $r->next());

    return [
        'put in' => static fn (array $rows, Random $r): array => [[
            'do' => 'item.add',
            'asset' => $r->pick([
                'oda-ferrant', 'bram-tiel', 'pim-alder', 'bench', 'brass-key', 'bell', 'crate-small', 'hand-cart', 'lantern', 'cloak',
            ]),
            'near' => [$metre($r), $metre($r)],
        ]],
        'take out' => static fn (array $rows, Random $r): array => [['do' => 'item.remove', 'item' => $one($ids($rows, 'items'), $r)]],
        'trim' => static fn (array $rows, Random $r): array => [[
            'do' => 'beat.trim', 'beat' => $one($ids($rows, 'beats'), $r), 'edge' => $r->pick(['in', 'out']), 'frame' => $frame($r),
        ]],
        'copy' => static fn (array $rows, Random $r): array => [['do' => 'item.duplicate', 'item' => $one($ids($rows, 'items'), $r)]],
        'move' => static fn (array $rows, Random $r): array => [
            ['do' => 'item.place', 'item' => $one($ids($rows, 'items'), $r), 'position' => [$metre($r), 0, $metre($r)], 'land' => true],
            ['do' => 'item.place', 'item' => $one($ids($rows, 'items'), $r), 'headingDeg' => 360 * $r->next(), 'scale' => 0.6 + $r->next()],
        ],
        'name' => static fn (array $rows, Random $r): array => [[
            'do' => 'item.set', 'item' => $one($ids($rows, 'items'), $r), 'name' => 'N'.(int) (9 * $r->next()),
            'tape' => (int) (8 * $r->next()),
        ]],
        'dye' => static fn (array $rows, Random $r): array => [[
            'do' => 'item.dress', 'item' => $one($ids($rows, 'items', 'prop'), $r), 'reset' => true,
        ]],
        'act' => static fn (array $rows, Random $r): array => [[
            'do' => 'beat.add',
            'item' => $one($ids($rows, 'items', 'performer'), $r),
            'motion' => $r->pick(['walk', 'wave', 'talk', 'sit-down', 'idle', 'jump', 'read', 'point']),
        ] + ($r->next() < 0.5 ? ['start' => $frame($r)] : [])],
        'change a beat' => static fn (array $rows, Random $r): array => [['do' => 'beat.set', 'beat' => $one($ids($rows, 'beats'), $r)] + $r->pick([['speed' => 0.5 + $r->next()], ['start' => $frame($r)], ['loops' => 1 + (int) (2 * $r->next())], ['join' => 'cut'], ['join' => 'blend', 'joinFrames' => 1 + $frame($r, 20)], ['root' => 'spot'], ['motion' => 'wave'], ['path' => ['points' => [[$metre($r), $metre($r)]]]], ['path' => null], ['play' => ['energy' => 0.5 + $r->next()]], ['play' => ['reverse' => true]]])],
        'split' => static fn (array $rows, Random $r): array => [[
            'do' => 'beat.split', 'beat' => $one($ids($rows, 'beats'), $r), 'frame' => $frame($r),
        ]],
        'take a beat' => static fn (array $rows, Random $r): array => [['do' => 'beat.remove', 'beat' => $one($ids($rows, 'beats'), $r)]],
        'carry' => static fn (array $rows, Random $r): array => [[
            'do' => 'link.add', 'child' => $one($ids($rows, 'items', 'prop'), $r), 'parent' => $one($ids($rows, 'items'), $r),
            'mount' => $r->pick(['handL', 'handR', 'head', 'seat']), 'from' => $frame($r), 'keep' => $r->pick(['grip', 'place']),
        ] + ($r->next() < 0.5 ? ['to' => 60 + $frame($r)] : [])],
        'let go' => static fn (array $rows, Random $r): array => [[
            'do' => 'link.set', 'link' => $one($ids($rows, 'links'), $r),
        ] + $r->pick([['release' => 'fall', 'to' => 40 + $frame($r)], ['from' => $frame($r)], ['mount' => 'handL'], ['keep' => 'grip']])],
        'untie' => static fn (array $rows, Random $r): array => [['do' => 'link.remove', 'link' => $one($ids($rows, 'links'), $r)]],
        'hold' => static fn (array $rows, Random $r): array => [[
            'do' => 'contact.add', 'item' => $one($ids($rows, 'items', 'performer'), $r),
            'effector' => $r->pick(['handL', 'handR', 'look', 'hips']), 'target' => $one($ids($rows, 'items'), $r), 'from' => $frame($r),
            'to' => 100 + $frame($r),
        ]],
        'no hold' => static fn (array $rows, Random $r): array => [[
            'do' => 'contact.remove', 'contact' => $one($ids($rows, 'contacts'), $r),
        ]],
        'touch up' => static fn (array $rows, Random $r): array => [[
            'do' => 'touchUp.key', 'item' => $one($ids($rows, 'items', 'performer'), $r),
            'joint' => $r->pick(['head', 'chest', 'upperArmL']), 'frame' => $frame($r),
            'turnDeg' => [10 * $r->signed(), 20 * $r->signed(), 0],
        ]],
        'camera' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.add', 'position' => [$metre($r), 1.6, 5.0], 'rotation' => [0, 0, 0, 1], 'focalMm' => 24 + $frame($r, 60),
            'focusMetres' => null, 'fStop' => 4,
        ]],
        'key' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.key', 'camera' => $one($ids($rows, 'cameras'), $r), 'frame' => $frame($r),
            'position' => [$metre($r), 1.4, 4.0], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35, 'focusMetres' => null, 'fStop' => 4,
        ]],
        'film somebody' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.frame', 'subject' => $one($ids($rows, 'items'), $r), 'frame' => $frame($r), 'sideDeg' => 180 * $r->signed(),
            'size' => $r->pick(['closeUp', 'medium', 'full', 'wide']), 'keep' => $r->pick(['still', 'turn', 'follow']),
        ] + $r->pick([[], ['kind' => 'together', 'partner' => $one($ids($rows, 'items', 'performer'), $r)]])],
        'lead a camera' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.frame', 'camera' => $one($ids($rows, 'cameras'), $r), 'move' => true, 'over' => $frame($r),
            'subject' => $one($ids($rows, 'items', 'performer'), $r), 'frame' => $frame($r),
        ]],
        'change a framing' => static fn (array $rows, Random $r): array => [[
            'do' => 'framing.set', 'framing' => $one($ids($rows, 'framings'), $r), 'sideDeg' => 90 * $r->signed(), 'height' => 'low',
        ]],
        'loosen' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.loosen', 'camera' => $one($ids($rows, 'cameras'), $r),
        ]],
        'lay shots' => static fn (array $rows, Random $r): array => [[
            'do' => 'reel.lay', 'from' => 10, 'to' => 40 + $frame($r), 'shots' => [
                ['camera' => $one($ids($rows, 'cameras'), $r), 'in' => 10], ['camera' => $one($ids($rows, 'cameras'), $r), 'in' => 24],
            ],
        ]],
        'no camera' => static fn (array $rows, Random $r): array => [[
            'do' => 'camera.remove', 'camera' => $one($ids($rows, 'cameras'), $r),
        ]],
        'cut' => static fn (array $rows, Random $r): array => [[
            'do' => 'shot.cut', 'camera' => $one($ids($rows, 'cameras'), $r), 'frame' => $frame($r),
        ]],
        'move a cut' => static fn (array $rows, Random $r): array => [[
            'do' => 'shot.move', 'shot' => $one($ids($rows, 'shots'), $r), 'frame' => $frame($r),
        ]],
        'no cut' => static fn (array $rows, Random $r): array => [['do' => 'shot.remove', 'shot' => $one($ids($rows, 'shots'), $r)]],
        'mood' => static fn (array $rows, Random $r): array => [[
            'do' => 'scene.set', 'mood' => $r->pick(['dusk', 'night', 'fog', 'neutral']),
            'story' => $r->next() < 0.5 ? null : 'Oda waits.', 'wind' => ['speed' => 9 * $r->next()],
        ]],
    ];
}

/** Rows and what of the scene itself can be undone, as text. */
function whole(Scene $scene): string
{
    $scene->refresh();

    return json_encode(
        SceneRows::all($scene) + ['scene' => [$scene->name, $scene->mood, $scene->story, $scene->wind]],
        JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT,
    );
}

/** Nothing hangs in the air: whatever a row names is there, cuts tile the scene, and every frame can be settled. */
function sound(Scene $scene, string $after): void
{
    $rows = SceneRows::all($scene);
    $there = array_map(
        static fn (string $t): array => array_flip(array_column($rows[$t], 'id')),
        array_combine(array_keys($rows), array_keys($rows)),
    );
    foreach ([
        ['beats', 'itemId', 'items'], ['links', 'childId', 'items'], ['links', 'parentId', 'items'], ['contacts', 'itemId', 'items'],
        ['contacts', 'targetId', 'items'], ['touch_ups', 'itemId', 'items'], ['shots', 'cameraId', 'cameras'],
        ['framings', 'cameraId', 'cameras'], ['framings', 'subjectId', 'items'], ['framings', 'partnerId', 'items'],
    ] as [$table, $column, $of]) {
        foreach ($rows[$table] as $row) {
            expect(($row[$column] ?? null) === null || isset($there[$of][$row[$column]]))
                ->toBeTrue("{$after}: {$table} {$row['id']} names a lost {$column}");
        }
    }
    foreach ($rows['shots'] as $n => $shot) {
        expect($shot['in'])->toBe($n === 0 ? 0 : $rows['shots'][$n - 1]['out'], $after)->and($shot['out'] === null)
            ->toBe($n === count($rows['shots']) - 1, $after);
    }
    $compiled = app(SceneStream::class)->compile($scene);
    foreach ([0.0, 17.0, $compiled->frames - 1.0] as $frame) {
        $pose = SceneEvaluator::at($compiled, $frame);
        $sum = array_sum(array_map(static fn (Placement $p): float => array_sum($p->position), $pose->places))
            + array_sum(array_map(array_sum(...), $pose->rows));
        expect(is_finite($sum))->toBeTrue("{$after}: frame {$frame}");
    }
}

test('whatever hands do, in any order: what is refused changes nothing, what is taken can be undone and redone to the row', function (int $seed): void {
    $user = $this->person();
    $scene = $this->scene($user);
    $this->actingAs($user);
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'near' => [0, 0], 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'brass-key', 'near' => [1, 0], 'name' => 'Key'],
        ['do' => 'camera.add', 'position' => [0, 1.6, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 35, 'focusMetres' => null, 'fStop' => 4],
    ]);
    $random = new Random($seed);
    $hands = hands();
    /** @var list<string> $states after each edit that was taken */
    $states = [whole($scene)];
    $refused = 0;
    for ($step = 0; $step < 45; $step++) {
        $name = $random->pick(array_keys($hands));
        $now = end($states);
        try {
            $this->edit($scene, $hands[$name](SceneRows::all($scene), $random), $user);
        } catch (UserError|CoreFailure $e) {
            // Refused for what the scene is like, never for how the command was written.
            $reason = $e instanceof UserError ? $e->reason : $e->reason();
            expect($reason)->not->toBeIn(['edit.unknown', 'edit.shape', 'edit.input'], "{$name}: {$e->getMessage()}");
            expect(strlen($e->getMessage()))->toBeGreaterThan(10)->and(whole($scene))
                ->toBe($now, "{$name} was refused and changed something");
            $refused++;

            continue;
        }
        sound($scene->refresh(), "{$name}, step {$step}");
        if (whole($scene) !== $now) {
            $states[] = whole($scene);
        }
        if ($random->next() < 0.15 && count($states) > 1) {
            // Back a step or two, and sometimes forward again.
            $back = min(count($states) - 1, 1 + (int) (2 * $random->next()));
            for ($k = 0; $k < $back; $k++) {
                $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
            }
            expect(whole($scene))->toBe($states[count($states) - 1 - $back], "{$back} back after {$name}");
            if ($random->next() < 0.5) {
                for ($k = 0; $k < $back; $k++) {
                    $this->postJson("/api/scenes/{$scene->id}/redo")->assertOk();
                }
                expect(whole($scene))->toBe(end($states), "forward again after {$name}");
            } else {
                $states = array_slice($states, 0, count($states) - $back);
            }
        }
    }
    expect(count($states))->toBeGreaterThan(8)->and($refused)->toBeLessThan(35);
    for ($k = count($states) - 2; $k >= 0; $k--) {
        $this->postJson("/api/scenes/{$scene->id}/undo")->assertOk();
        expect(whole($scene))->toBe($states[$k], "undone to {$k}");
    }
    for ($k = 1; $k < count($states); $k++) {
        $this->postJson("/api/scenes/{$scene->id}/redo")->assertOk();
        expect(whole($scene))->toBe($states[$k], "redone to {$k}");
    }
})->with([1, 2, 3, 4, 5, 6]);
