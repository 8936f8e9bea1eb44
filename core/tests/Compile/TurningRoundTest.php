<?php

declare(strict_types=1);

use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Tests\Support\Scenes;

/**
 * Somebody who looks at one who walks past and away behind, with these beats.
 *
 * @param  list<array<string, mixed>>  $beats
 */
function watching(array $beats, array $path = [[-2.0, 1.5], [-2.0, -4.0]]): CompiledScene
{
    return Scenes::compile([
        'items' => [Scenes::item('o', 'oda'), Scenes::item('p', 'bram', 2.0, 1.5, -90.0)],
        'beats' => [Scenes::beat('w', 'p', 'walk', 0, ['path' => ['points' => $path]]), ...$beats],
        'contacts' => [['id' => 'k', 'item' => 'o', 'effector' => 'look', 'target' => 'p', 'mount' => 'head', 'from' => 0]],
    ]);
}

/** @return list<Finding> */
function unseen(CompiledScene $s): array
{
    return array_values(array_filter($s->notes, static fn (Finding $n): bool => $n->code === 'contact.look'));
}

test('who cannot turn far enough is offered to step round, and sees the one who leaves all the way', function (): void {
    $idle = [Scenes::beat('i', 'o', 'idle', 0, ['play' => ['keepLooping' => true]])];
    $s = watching($idle);
    [$note] = unseen($s);
    expect($note->mends[0]->words)->toBe('Turn round for it')->and($note->mends[0]->commands)->not->toBe([]);
    $beats = $idle;
    foreach ($note->mends[0]->commands as $k => $command) {
        expect($command->payload['motion'])->toMatch('/^turn-(45|90|180)-right$/');
        [, $degrees] = explode('-', $command->payload['motion']);
        $beats[] = Scenes::beat("t{$k}", 'o', "turn{$degrees}Right", $command->payload['start']);
    }
    $turned = watching($beats);
    expect(unseen($turned))->toBe([]);
    for ($f = 12; $f < (int) $turned->lanes['p']->end(); $f += 3) {
        $missing = SceneEvaluator::at($turned, $f)->missing['k'] ?? 0.0;
        expect($missing)->toBeLessThan(8.0, "at {$f}");
    }
});

test('who is busy is not turned away from what they do', function (): void {
    [$note] = unseen(watching([Scenes::beat('t', 'o', 'talk', 0, ['loops' => 4])]));
    expect(array_column(array_map(static fn ($m): array => ['words' => $m->words], $note->mends), 'words'))->toBe(['End the look here']);
});
