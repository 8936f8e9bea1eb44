<?php

declare(strict_types=1);

use CrispReel\Core\Camera\Aim;
use CrispReel\Core\Camera\Framer;
use CrispReel\Core\Camera\Gate;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\FramedCamera;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Subjects;
use CrispReel\Core\Coverage\Action;
use CrispReel\Core\Coverage\Candidate;
use CrispReel\Core\Coverage\CutCosts;
use CrispReel\Core\Coverage\Stand;
use CrispReel\Core\Coverage\Style;
use CrispReel\Core\Coverage\Tries;
use CrispReel\Core\Coverage\Watch;
use CrispReel\Core\Document\Framing;
use CrispReel\Core\Tests\Support\FakeAssets;
use CrispReel\Core\Tests\Support\Scenes;

/** Oda speaks to Bram for a while; he stands before her. */
function spoken(): CompiledScene
{
    static $scene = null;

    return $scene ??= Scenes::compile([
        'items' => [Scenes::item('i1', 'oda', 0.0, 0.0, 0.0), Scenes::item('i2', 'bram', 0.0, 1.4, 180.0)],
        'beats' => [Scenes::beat('b1', 'i1', 'talk', 48)],
    ], null, priced());
}

function priced(): Memory
{
    static $memory = new Memory;

    return $memory;
}

/**
 * Costs among set-ups that are given by their role, size and framing.
 *
 * @param  list<array{string, float, array<string, mixed>}>  $of
 */
function costsOf(string $style, array ...$of): CutCosts
{
    $scene = spoken();
    $gate = new Gate(16 / 9);
    $stand = new Stand($scene, new FakeAssets, priced(), 60, $gate);
    $where = (new Subjects($scene->poses, $scene->document, new FakeAssets, priced()))->where($scene->frames);
    $candidates = [];
    foreach ($of as [$role, $size, $how]) {
        $f = Tries::with(new Framing('f0', 'c0', 'i1', frame: 60), $how);
        $aim = Framer::solve($f, $stand->marks($f->subject), array_map($stand->marks(...), $f->with()), $gate);
        assert($aim instanceof Aim);
        $about = $role === 'two' || $role === 'master' ? ['i1', 'i2'] : [$f->subject];
        $candidates[] = new Candidate($role, $role, $f, new FramedCamera([[$f, $aim]], $gate, $where), $about, $size, 0, $scene->frames);
    }
    $action = Action::of($scene, new FakeAssets, ['i1', 'i2'], 0, $scene->frames);
    $at = static fn (int $f): Stand => new Stand($scene, new FakeAssets, priced(), min($f, $scene->frames - 1), $gate);

    return new CutCosts($action, $candidates, Watch::over($candidates, $action, $at, $gate), Style::named($style), 24.0);
}

const ON_ODA = ['partner' => 'i2', 'size' => 'mediumCloseUp', 'sideDeg' => 32.0, 'focalMm' => 65.0];

const ON_BRAM = ['subject' => 'i2', 'partner' => 'i1', 'size' => 'mediumCloseUp', 'sideDeg' => -32.0, 'focalMm' => 65.0];

test('while she speaks it costs more to look at him, and more in a plain style than in a lively one to do without', function (): void {
    $c = costsOf('plain', ['single', 4.0, ON_ODA], ['single', 4.0, ON_BRAM]);
    expect($c->span(0, 96, 144))->toBeLessThan($c->span(1, 96, 144));
    // From behind her face is worth little.
    $behind = costsOf('plain', ['single', 4.0, ON_ODA], ['single', 4.0, ['size' => 'mediumCloseUp', 'sideDeg' => 180.0]]);
    expect($behind->span(1, 96, 144) - $behind->span(0, 96, 144))->toBeGreaterThan(1.0);
});

test('a cut across the line costs more than any other, and is told', function (): void {
    $two = ['partner' => 'i2', 'kind' => 'together', 'size' => 'medium', 'focalMm' => 40.0];
    $c = costsOf(
        'plain', ['two', 2.7, ['sideDeg' => 90.0] + $two], ['two', 2.7, ['sideDeg' => -90.0] + $two],
        ['two', 1.2, ['sideDeg' => 90.0, 'size' => 'full'] + $two],
    );
    expect($c->crosses(0, 1, 96))->toBeTrue()->and($c->crosses(0, 2, 96))->toBeFalse()->and($c->cut(0, 1, 96))->toBeGreaterThan(30.0)
        ->and($c->cut(0, 2, 96))->toBeLessThan(1.0);
});

test('the same picture a little otherwise is a jump; another size or another side is none', function (): void {
    $c = costsOf(
        'plain', ['single', 4.0, ON_ODA], ['single', 4.2, ['sideDeg' => 44.0] + ON_ODA], ['single', 5.6, ['size' => 'closeUp'] + ON_ODA],
        ['single', 4.0, ['sideDeg' => -70.0] + ON_ODA], ['single', 4.0, ON_BRAM],
    );
    expect($c->cut(0, 1, 96))->toBeGreaterThan(10.0)->and($c->cut(0, 2, 96))->toBeLessThan(1.0)->and($c->cut(0, 3, 96))->toBeLessThan(1.0)
        ->and($c->cut(0, 4, 96))->toBeLessThan(1.0);
});

test('a shot likes to be as long as the style has it, and hardly ever shorter than it may be', function (
    string $style, int $mean, int $least,
): void {
    $c = costsOf($style, ['single', 4.0, ON_ODA]);
    expect($c->length(0, $mean))->toEqualWithDelta(0.0, 1e-9)->and($c->length(0, 2 * $mean))->toBeGreaterThan(0.2)
        ->and($c->length(0, (int) ($mean / 2)))->toBeGreaterThan(0.2)->and($c->length(0, $least - 6))->toBeGreaterThan(5.0);
})->with([['plain', 88, 30], ['tense', 62, 22], ['lively', 46, 18]]);
