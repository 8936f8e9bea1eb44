<?php

declare(strict_types=1);
use App\Assets\BlobStore;
use App\Edits\CommandList;
use App\Edits\EditRunner;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\Scene;
use App\Scenes\SceneRows;
use CrispReel\Core\CoreFailure;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Surfaces\SurfaceList;
use Illuminate\Support\Facades\DB;

/** A scene with one of everything that a command can name. */
function oneOfAll(Tests\TestCase $test): Scene
{
    $scene = $test->scene($test->person());
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0], 'name' => 'Oda'],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [2, 0, 0], 'name' => 'Bram'],
        ['do' => 'item.add', 'asset' => 'brass-key', 'position' => [4, 0, 0], 'name' => 'Key'],
        ['do' => 'item.add', 'asset' => 'hand-cart', 'position' => [6, 0, 0], 'name' => 'Cart'],
        ['do' => 'item.add', 'asset' => 'rowing-boat', 'position' => [10, 0, 0], 'name' => 'Boat'],
        ['do' => 'item.add', 'asset' => 'cloak', 'position' => [-3, 0, 0], 'name' => 'Cloak'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'talk', 'start' => 0, 'as' => '$b'],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'wave', 'as' => '$b2'],
        ['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'receive', 'start' => 0, 'as' => '$c'],
        ['do' => 'touchUp.key', 'item' => 'Oda', 'joint' => 'head', 'frame' => 4, 'turnDeg' => [0, 10, 0]],
        ['do' => 'contact.add', 'item' => 'Bram', 'effector' => 'look', 'target' => 'Oda', 'from' => 0],
        ['do' => 'link.add', 'child' => 'Key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 0, 'keep' => 'grip'],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
        ['do' => 'camera.add', 'position' => [2, 1.5, 5], 'rotation' => [0, 0, 0, 1]],
        ['do' => 'shot.cut', 'camera' => 'B', 'frame' => 40],
        ['do' => 'camera.frame', 'subject' => 'Oda', 'frame' => 0],
        ['do' => 'camera.frame', 'subject' => 'Bram', 'frame' => 0],
        ['do' => 'camera.frame', 'camera' => 'D', 'move' => true, 'subject' => 'Bram', 'frame' => 20, 'over' => 12, 'size' => 'full'],
        ['do' => 'item.ride', 'item' => 'Bram', 'on' => 'Boat', 'from' => 400],
        ['do' => 'line.add', 'item' => 'Oda', 'text' => 'Has he gone?', 'start' => 300, 'as' => '$said'],
        ['do' => 'take.add', 'line' => '$said', 'asset' => 'sound-waves'],
        ['do' => 'line.add', 'item' => 'Bram', 'text' => 'Not yet.'],
        ['do' => 'expression.add', 'item' => 'Oda', 'emotion' => 'sad', 'from' => 20],
        ['do' => 'sound.add', 'asset' => 'sound-waves', 'start' => 0],
    ]);

    return $scene->refresh();
}

/**
 * Each command as someone would send it.
 *
 * @return array<string, array<string, mixed>>
 */
function asSent(Scene $scene): array
{
    $id = static fn (string $table, int $n = 0): int => (int) DB::table($table)->where('scene_id', $scene->id)->orderBy('id')
        ->pluck('id')[$n];
    $pose = ['position' => [0, 1.5, 4], 'rotation' => [0, 0, 0, 1]];
    $oda = Asset::query()->where('slug', 'oda-ferrant')->firstOrFail()->versions()->orderByDesc('number')->firstOrFail();
    $coat = SurfaceList::of(GltfDraft::open(app(BlobStore::class)->get($oda->blob)))->toArray()[0]['key'];

    return [
        'scene.set' => [
            'name' => 'Dusk',
            'mood' => 'fog',
            'story' => 'Oda waits.',
            'wind' => ['towardsDeg' => 90, 'speed' => 3, 'gusts' => 0.2, 'seed' => 4],
        ],
        'production.set' => ['rate' => [25, 1], 'width' => 1920, 'height' => 1080, 'sayAs' => ['quay' => 'key']],
        'item.add' => [
            'asset' => 'lantern', 'near' => [1, 1], 'name' => 'Lamp', 'facing' => [0, 3], 'headingDeg' => 20, 'scale' => 1.1, 'tape' => 2,
        ],
        'item.place' => ['item' => 'Key', 'position' => [1, 0, 1], 'headingDeg' => 30, 'scale' => 2, 'land' => true],
        'item.set' => [
            'item' => 'Cloak',
            'name' => 'Cape',
            'tape' => 3,
            'version' => 1,
            'locked' => true,
            'cloth' => ['kind' => 'silk', 'grams' => 80, 'bend' => 0.1, 'catch' => 1, 'damping' => 0.5],
        ],
        'item.dress' => ['item' => 'Oda', 'surface' => $coat, 'colour' => '#2f8f4f'],
        'item.duplicate' => ['item' => 'Key'],
        'item.key' => ['item' => 'Boat', 'frame' => 10, 'position' => [10, 0, 1], 'turnDeg' => [0, 20, 0], 'ease' => 'in'],
        'item.route' => ['item' => 'Cart', 'points' => [[6, 0], [9, 0]], 'from' => 0, 'to' => 60],
        'item.push' => ['item' => 'Cart', 'by' => 'Bram', 'points' => [[9, 0]], 'start' => 120, 'speed' => 1],
        'item.ride' => ['item' => 'Bram', 'on' => 'Boat', 'from' => 100, 'to' => 140, 'getOn' => false],
        'item.alight' => ['item' => 'Bram', 'at' => 700],
        'item.wear' => ['item' => 'Oda', 'cloth' => 'Cloak', 'from' => 0, 'to' => 90],
        'item.remove' => ['item' => 'Key'],
        'crowd.add' => [
            'assets' => ['oda-ferrant'], 'motions' => ['idle'], 'count' => 2, 'area' => [[10, 10], [14, 10], [14, 14], [10, 14]],
            'spacing' => 1, 'seed' => 3, 'name' => 'Crowd', 'facing' => [0, 0],
        ],
        'beat.add' => [
            'item' => 'Bram', 'motion' => 'idle', 'start' => 150, 'sourceIn' => 0, 'sourceOut' => 2, 'speed' => 1, 'loops' => 2,
            'root' => 'travel', 'join' => 'blend', 'joinFrames' => 6, 'settings' => ['seed' => 3], 'play' => ['mirror' => true],
        ],
        'beat.set' => ['beat' => $id('beats'), 'speed' => 1.2, 'loops' => 1, 'play' => ['armWidthDeg' => 5]],
        'beat.split' => ['beat' => $id('beats'), 'frame' => 30], 'beat.trim' => ['beat' => $id('beats'), 'edge' => 'out', 'frame' => 20],
        'beat.bestJoin' => ['beat' => $id('beats', 1)],
        'beat.pair' => ['beat' => $id('beats'), 'with' => $id('beats', 2), 'together' => true], 'beat.remove' => ['beat' => $id('beats')],
        'line.add' => [
            'item' => 'Bram', 'text' => 'Come *here*. [1 s] Now!', 'after' => $id('lines'), 'pause' => 0.6, 'delivery' => 'angry',
            'pace' => 1.2,
            'to' => 'Oda', 'voice' => 'keel', 'gestures' => false,
        ],
        'line.set' => ['line' => $id('lines'), 'text' => 'Where is he?', 'start' => 310, 'delivery' => 'sad'],
        'line.remove' => ['line' => $id('lines')],
        'lines.paste' => ['page' => "Oda: One.\nGull: Kree.", 'who' => ['Gull' => ''], 'start' => 500, 'gestures' => false],
        'expression.add' => [
            'item' => 'Bram', 'from' => 10, 'to' => 40, 'emotion' => 'angry', 'amount' => 0.8, 'shapes' => ['jawOpen' => 0.2],
        ],
        'expression.set' => ['expression' => $id('expressions'), 'emotion' => 'glad', 'easeIn' => 4],
        'expression.remove' => ['expression' => $id('expressions')],
        'take.add' => ['line' => $id('lines'), 'asset' => 'sound-waves', 'sourceIn' => 1, 'sourceOut' => 2.5],
        'take.set' => ['take' => $id('takes'), 'sourceOut' => null, 'chosen' => false],
        'take.remove' => ['take' => $id('takes')],
        'sound.add' => ['asset' => 'sound-waves', 'start' => 12, 'lane' => 'music', 'level' => -6, 'fadeIn' => 1, 'fadeOut' => 2,
            'repeats' => false],
        'sound.set' => ['sound' => $id('sounds'), 'level' => -12, 'muted' => true, 'until' => 90],
        'sound.remove' => ['sound' => $id('sounds')],
        'touchUp.key' => ['touchUp' => $id('touch_ups'), 'frame' => 6, 'turnDeg' => [0, 5, 0]],
        'touchUp.set' => ['touchUp' => $id('touch_ups'), 'from' => 0, 'to' => 20, 'easeIn' => 4, 'easeOut' => 4],
        'touchUp.remove' => ['touchUp' => $id('touch_ups')],
        'contact.add' => [
            'item' => 'Oda', 'effector' => 'handL', 'from' => 10, 'to' => 40, 'target' => 'Cart', 'offset' => [0, 1, 0], 'easeIn' => 4,
            'easeOut' => 4, 'turn' => 'keep',
        ],
        'contact.set' => ['contact' => $id('contacts'), 'to' => 40, 'easeIn' => 3], 'contact.remove' => ['contact' => $id('contacts')],
        'link.add' => [
            'child' => 'Cloak', 'parent' => 'Cart', 'from' => 5, 'to' => 50, 'keep' => 'place', 'easeFrames' => 4, 'release' => 'fall',
            'velocity' => [0, 1, 0],
        ],
        'link.set' => ['link' => $id('links'), 'to' => 60, 'keep' => 'place'], 'link.remove' => ['link' => $id('links')],
        'camera.add' => $pose + [
            'letter' => 'K', 'name' => 'High', 'frame' => 5, 'focalMm' => 35, 'focusMetres' => 3, 'fStop' => 4, 'ease' => 'in',
            'sensorWidthMm' => 36, 'sensorHeightMm' => 24,
        ],
        'camera.frame' => [
            'camera' => 'C', 'move' => true, 'subject' => 'Oda', 'partner' => 'Bram', 'frame' => 24, 'over' => 12, 'ease' => 'in',
            'kind' => 'together', 'size' => 'full', 'sideDeg' => 90, 'height' => 'high', 'focalMm' => 40, 'keep' => 'still', 'room' => 0.5,
            'fStop' => 5.6, 'name' => 'Both',
        ],
        'camera.slip' => ['camera' => 'D', 'by' => 6],
        'framing.set' => ['framing' => $id('framings'), 'size' => 'closeUp', 'sideDeg' => -20, 'keep' => 'follow'],
        'framing.remove' => ['framing' => $id('framings')],
        'reel.lay' => ['from' => 10, 'to' => 60, 'shots' => [['camera' => 'A', 'in' => 10], ['camera' => 'C', 'in' => 30]]],
        'camera.loosen' => ['camera' => 'D', 'hold' => 12],
        'camera.key' => $pose + ['camera' => 'A', 'frame' => 20, 'focalMm' => 40],
        'camera.unkey' => ['camera' => 'A', 'frame' => 0],
        'camera.set' => [
            'shake' => ['degrees' => 1, 'hertz' => 2, 'metres' => 0.01, 'seed' => 3], 'locked' => false,
            'camera' => 'A', 'name' => 'Wide', 'focalMm' => 28, 'fStop' => 5.6, 'focusMetres' => 4,
        ],
        'camera.remove' => ['camera' => 'B'],
        'shot.cut' => ['camera' => 'A', 'frame' => 60], 'shot.move' => ['shot' => $id('shots', 1), 'frame' => 50],
        'shot.set' => ['shot' => $id('shots'), 'camera' => 'B', 'label' => '015'], 'shot.remove' => ['shot' => $id('shots', 1)],
    ];
}

/** Runs one command on its own and leaves the scene as it was; gives what went wrong. @param  array<string, mixed>  $command */
function tried(Scene $scene, array $command): ?Throwable
{
    DB::beginTransaction();
    try {
        app(EditRunner::class)->run($scene->refresh(), null, [$command]);

        return null;
    } catch (Throwable $e) {
        return $e;
    } finally {
        DB::rollBack();
    }
}

/** Whether a command changes rows of the scene, or the scene itself. @param  array<string, mixed>  $command */
function changedBy(Scene $scene, array $command): bool
{
    $state = static fn (): string => json_encode(
        [SceneRows::all($scene->refresh()), $scene->getAttributes(), $scene->production->refresh()->getAttributes()],
        JSON_THROW_ON_ERROR,
    );
    DB::beginTransaction();
    try {
        $before = preg_replace('/"(revision|updated_at)":[^,}]*/', '', $state());
        app(EditRunner::class)->run($scene->refresh(), null, [$command]);

        return preg_replace('/"(revision|updated_at)":[^,}]*/', '', $state()) !== $before;
    } finally {
        DB::rollBack();
    }
}

test('there is an example of every command, and each is done', function (): void {
    $scene = oneOfAll($this);
    $all = asSent($scene);
    expect(array_keys($all))->toEqualCanonicalizing(array_keys(CommandList::byName()));
    foreach ($all as $name => $in) {
        $e = tried($scene, ['do' => $name] + $in);
        // The one key of a camera stays, and that is said.
        if ($name === 'camera.unkey') {
            expect($e)->toBeInstanceOf(UserError::class);
        } else {
            expect($e === null ? '' : "{$name}: {$e->getMessage()}")->toBe('');
            // One that changes nothing is no example.
            expect(changedBy($scene, ['do' => $name] + $in))->toBeTrue("{$name} changes nothing");
        }
    }
});

test('whatever is sent in a field is taken, or refused in words: no command falls over', function (): void {
    $scene = oneOfAll($this);
    $nonsense = [null, true, [], [['a' => 1]], 'no such thing', '', -1, 1.0e12, str_repeat('x', 300), ['x' => 'y']];
    $fell = [];
    $n = 0;
    foreach (asSent($scene) as $name => $in) {
        $fields = array_unique([
            ...array_keys($in),
            ...array_filter(array_map(
                static fn (string $rule): string => explode('.', $rule)[0],
                array_keys(CommandList::get($name)->rules()),
            )),
            'as',
        ]);
        foreach ($fields as $field) {
            foreach ($nonsense as $value) {
                $e = tried($scene, [$field => $value] + ['do' => $name] + $in);
                $n++;
                if ($e !== null && ! $e instanceof UserError && ! $e instanceof CoreFailure) {
                    $fell[] = sprintf(
                        '%s, %s = %s: %s in %s:%d', $name, $field, json_encode($value), $e->getMessage(), basename($e->getFile()),
                        $e->getLine(),
                    );
                }
                if ($e instanceof UserError) {
                    expect($e->remedy)->not->toBe('')->and($e->getMessage())->not->toBe('');
                }
            }
        }
    }
    expect($fell)->toBe([])->and($n)->toBeGreaterThan(1800);
});

test('of several commands all are done or none', function (): void {
    $scene = oneOfAll($this);
    $before = $scene->refresh()->revision;
    $names = fn (): array => $scene->items()->orderBy('id')->pluck('name')->all();
    $was = $names();
    expect(fn () => $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'lantern', 'near' => [0, 0]], ['do' => 'item.remove', 'item' => 'Key'],
        ['do' => 'item.remove', 'item' => 'Nobody'],
    ]))->toThrow(UserError::class, 'Command 2 (item.remove)');
    expect($names())->toBe($was)->and($scene->refresh()->revision)->toBe($before);
});
