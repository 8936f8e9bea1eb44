<?php

declare(strict_types=1);

use App\Demo\HalfPastTheTide;
use App\Models\Edit;
use App\Models\Item;
use App\Models\Production;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Tests\Support\FakeAssets;
use Illuminate\Support\Facades\Artisan;

/** @param  array<string, mixed>  $arguments @return array{int, mixed} exit code and decoded output */
function ran(string $command, array $arguments = []): array
{
    $code = Artisan::call($command, $arguments + ['--json' => true]);

    return [$code, json_decode(Artisan::output(), true)];
}

test('the demo loads once and tells its story', function (): void {
    [$code, $out] = ran('reel:demo');
    expect($code)->toBe(0)->and($out['production'])->toBe('Half Past the Tide');
    ran('reel:demo');
    expect(Production::query()->where('name', 'Half Past the Tide')->count())->toBe(1);
    $scene = app(HalfPastTheTide::class)->load();
    expect($scene->items()->count())->toBeGreaterThan(12)->and($scene->shots()->count())->toBeBetween(9, 11)->and($scene->links()->count())
        ->toBe(2);
    // It speaks, it sounds, and nothing in it is to be told.
    $compiled = app(App\Scenes\SceneStream::class)->compile($scene);
    $happens = array_filter($compiled->heard, static fn (Heard $h): bool => $h->noise !== null);
    expect($compiled->utterances)->toHaveCount(6)->and($compiled->utterances[0]->reading->guessed)->toBeFalse()
        ->and(count($compiled->heard) - count($happens))->toBe(6)->and(count($happens))->toBeGreaterThan(20)
        ->and(array_map(static fn ($n): string => $n->sentence, $compiled->notes))->toBe([]);
});

test('edits, poses and pieces from the command line', function (): void {
    $scene = $this->scene();
    $file = tempnam(sys_get_temp_dir(), 'edits');
    file_put_contents($file, json_encode([
        ['do' => 'item.add', 'as' => '$o', 'asset' => 'oda-ferrant', 'position' => [2, 0, 1], 'headingDeg' => 90],
        ['do' => 'beat.add', 'item' => '$o', 'motion' => 'walk-to-mark', 'settings' => ['metres' => 2.0]],
        ['do' => 'camera.add', 'position' => [0, 1.5, 5], 'rotation' => [0, 0, 0, 1], 'focalMm' => 18.0],
    ]));
    [$code, $out] = ran('reel:apply', ['scene' => (string) $scene->id, 'edits' => $file]);
    expect($code)->toBe(0)->and($out['revision'])->toBe(1)->and(count($out['changes']))->toBe(4)
        ->and(Edit::query()->where('scene_id', $scene->id)->count())->toBe(1);
    [, $pose] = ran('reel:pose', ['scene' => 'Test production/Scene 1', '--frame' => '0']);
    [, $later] = ran('reel:pose', ['scene' => (string) $scene->id, '--frame' => (string) ($out['frames'] - 1)]);
    $foot = fn (array $p): array => $p['items'][0]['joints']['footL']['position'];
    // Heading 90 degrees: two metres along +x.
    expect($foot($later)[0] - $foot($pose)[0])->toEqualWithDelta(2.0, 0.03)->and($pose['cameras'][0]['verticalAngleDeg'])
        ->toEqualWithDelta(58.7155, 0.001)->and($pose['timecode'])->toBe('00:00:00:00');
    [, $bake] = ran('reel:bake', ['scene' => (string) $scene->id]);
    expect($bake['frames'])->toBe($out['frames'])->and(count($bake['pieces']))->toBe(2 * (int) ceil($out['frames'] / 48))
        ->and($bake['bytes'])->toBeGreaterThan(10000)->and(strlen($bake['pieces'][0]['name']))->toBe(22);
});

test('a file is imported from the command line', function (): void {
    $file = sys_get_temp_dir().'/footstool-'.uniqid().'.glb';
    file_put_contents($file, FakeAssets::glb('stool'));
    [$code, $out] = ran('reel:import', ['file' => $file, '--name' => 'Footstool']);
    expect($code)->toBe(0)->and($out)->toMatchArray(['name' => 'Footstool', 'kind' => 'prop', 'version' => 1])
        ->and($out['facts']['triangles'])->toBe(12);
});

test('bad input answers with exit code 2, what and what to do', function (string $command, array $arguments, string $reason): void {
    $scene = $this->scene();
    array_walk($arguments, function (&$v) use ($scene): void {
        $v = $v === 'SCENE' ? (string) $scene->id : $v;
    });
    [$code, $out] = ran($command, $arguments);
    expect($code)->toBe(2)->and($out['error']['reason'])->toBe($reason)->and($out['error']['remedy'])->not->toBe('');
})->with([
    ['reel:pose', ['scene' => 'nowhere'], 'scene.unknown'], ['reel:pose', ['scene' => 'SCENE', '--frame' => '-3'], 'option.frame'],
    ['reel:apply', ['scene' => 'SCENE', 'edits' => '/no/such/file'], 'file.unreadable'],
    ['reel:import', ['file' => '/no/such/file'], 'file.unreadable'],
    ['reel:import', ['file' => '/etc/hostname', '--as' => 'song'], 'import.kind'],
    ['reel:import', ['file' => '/etc/hostname'], 'gltf.magic'],
    ['reel:render', ['scene' => 'SCENE'], 'render.no-camera'], ['reel:render', ['scene' => 'SCENE', '--size' => 'huge'], 'render.size'],
    ['reel:render', ['scene' => 'SCENE', '--as' => 'avi'], 'render.format'],
    ['reel:bake', ['scene' => 'SCENE', '--from' => 'x'], 'option.from'],
]);

test('a broken edit file leaves nothing behind', function (): void {
    $scene = $this->scene();
    $file = tempnam(sys_get_temp_dir(), 'edits');
    file_put_contents($file, '[{"do": "item.add", "asset": "oda-ferrant"}, {"do": "item.remove", "item": "Nobody"}]');
    [$code] = ran('reel:apply', ['scene' => (string) $scene->id, 'edits' => $file]);
    expect($code)->toBe(2)->and(Item::query()->where('scene_id', $scene->id)->count())->toBe(0);
});

test('a strip that cannot be drawn is refused before anything is drawn', function (array $arguments, string $reason): void {
    $scene = $this->scene();
    [$code, $out] = ran('reel:strip', ['scene' => (string) $scene->id] + $arguments);
    expect($code)->toBe(2)->and($out['error']['reason'])->toBe($reason);
})->with([
    'no camera' => [[], 'render.no-camera'],
    'an unknown camera' => [['--camera' => 'Q'], 'strip.camera'],
    'a view without an aim' => [['--at' => '1,2,3'], 'strip.view'],
    'not a place' => [['--at' => '1,2', '--look' => '0,0,0'], 'strip.point'],
    'not a size' => [['--size' => 'huge'], 'strip.size'],
    'a range that runs backwards' => [['--at' => '1,2,3', '--look' => '0,0,0', '--from' => '50', '--to' => '10'], 'strip.range'],
]);

test('a motion goes out as BVH, comes in again, and plays on another performer', function (): void {
    $scene = $this->scene();
    $this->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'name' => 'Oda', 'position' => [0, 0, 0], 'headingDeg' => 90],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [0, 0, 2], 'headingDeg' => 90],
        ['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'walk-to-mark', 'settings' => ['metres' => 2.0]],
    ]);
    $file = sys_get_temp_dir().'/motion-'.uniqid().'.bvh';
    [$code, $out] = ran('reel:bvh', ['scene' => (string) $scene->id, 'performer' => 'Oda', '--out' => $file]);
    expect($code)->toBe(0)->and($out['frames'])->toBeGreaterThan(60);
    [$code, $in] = ran('reel:import', [
        'file' => $file, '--name' => 'Two metres', '--as' => 'motion', '--production' => (string) $scene->production_id,
    ]);
    expect($code)->toBe(0)->and($in['kind'])->toBe('motion')->and($in['facts']['frames'])->toBe($out['frames'])->and($in['facts']['roles'])
        ->toBe(25)->and($in['findings'])->toBe([]);
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Bram', 'motion' => 'Two metres']]);
    [, $a] = ran('reel:pose', ['scene' => (string) $scene->id, '--frame' => '0']);
    [, $b] = ran('reel:pose', ['scene' => (string) $scene->id, '--frame' => (string) ($out['frames'] - 1)]);
    $foot = fn (array $pose, int $who): array => $pose['items'][$who]['joints']['footL']['position'];
    expect($foot($b, 0)[0] - $foot($a, 0)[0])->toEqualWithDelta(2.0, 0.03)
        // Bram's legs have another length: his steps are as much longer.
        ->and($foot($b, 1)[0] - $foot($a, 1)[0])->toBeBetween(1.9, 2.2)->and(abs($foot($b, 1)[2] - $foot($a, 1)[2]))->toBeLessThan(0.05);
    unlink($file);
});

test('roles are shown, chosen and refused by name', function (): void {
    $file = tempnam(sys_get_temp_dir(), 'bvh');
    $bone = static fn (
        string $name, string $offset, string $in = '',
    ): string => "JOINT {$name}\n{\nOFFSET {$offset}\nCHANNELS 3 Zrotation Xrotation Yrotation\n{$in}}\n";
    $leg = static fn (string $s, int $x): string => $bone(
        "{$s}Thigh",
        "{$x} 0 0",
        $bone("{$s}Shin", '0 -40 0', $bone("{$s}Foot", '0 -40 0')),
    );
    file_put_contents(
        $file,
        "HIERARCHY\nROOT Base\n{\nOFFSET 0 90 0\nCHANNELS 6 Xposition Yposition Zposition Zrotation Xrotation Yrotation\n"
            .$bone('Spine', '0 12 0', $bone('Skull', '0 50 0')).$leg('L', 10).$leg('R', -10)."}\nMOTION\nFrames: 2\nFrame Time: 0.04\n"
            .str_repeat(implode(' ', array_fill(0, 30, '0'))."\n", 2),
    );
    [, $in] = ran('reel:import', ['file' => $file, '--name' => 'Odd bones '.uniqid()]);
    [$code, $out] = ran('reel:roles', ['asset' => (string) $in['asset']]);
    expect($code)->toBe(0)->and($out['roles']['hips']['joint'])->toBe('Base')->and($out['roles']['upperLegL'])
        ->toMatchArray(['joint' => 'LThigh', 'byHand' => false])->and($out['roles'])->not->toHaveKey('head');
    [, $out] = ran('reel:roles', ['asset' => (string) $in['asset'], 'choices' => ['head=Skull']]);
    expect($out['roles']['head'])->toBe(['joint' => 'Skull', 'confidence' => 1.0, 'byHand' => true])->and($out['version'])->toBe(2);
    expect(ran('reel:roles', ['asset' => (string) $in['asset'], 'choices' => ['head=Nose']])[1]['error']['reason'])->toBe('rig.joint')
        ->and(ran('reel:roles', ['asset' => (string) $in['asset'], 'choices' => ['tail=Skull']])[1]['error']['reason'])->toBe('rig.part')
        ->and(ran('reel:roles', ['asset' => 'brass-key'])[1]['error']['reason'])->toBe('roles.none')
        ->and(ran('reel:import', ['file' => $file, '--as' => 'prop'])[1]['error']['reason'])->toBe('intake.only-motion');
});

test('files that belong together come in from the command line with a slip each, mended on request', function (): void {
    $scene = $this->scene($this->person());
    $folder = sys_get_temp_dir().'/slips-'.uniqid();
    mkdir($folder);
    file_put_contents(
        "{$folder}/crate.gltf",
        \CrispReel\Core\Tests\Support\Spoiled::thing(
            0.4,
            ['alphaMode' => 'BLEND', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 1, 1, 0.0]]],
            null,
            false,
            'side.png',
        ),
    );
    file_put_contents("{$folder}/side.png", \CrispReel\Core\Tests\Support\Spoiled::picture(false));
    file_put_contents("{$folder}/torn.glb", 'glTF');
    [$code, $out] = ran('reel:import', [
        'file' => ["{$folder}/crate.gltf", "{$folder}/side.png"], '--mend' => true, '--production' => (string) $scene->production_id,
    ]);
    expect($code)->toBe(0)->and($out['arrivals'])->toHaveCount(1)->and($out['arrivals'][0]['kind'])->toBe('prop')
        ->and(array_column($out['arrivals'][0]['findings'], 'mended', 'code'))->toBe(['seeThrough' => true])->and($out['unused'])->toBe([]);
    [$code, $torn] = ran('reel:import', ['file' => ["{$folder}/torn.glb"], '--production' => (string) $scene->production_id]);
    expect($code)->toBe(2)->and($torn['arrivals'][0]['status'])->toBe('refused')->and($torn['arrivals'][0]['error']['reason'])
        ->toBe('gltf.truncated');
    array_map(unlink(...), glob("{$folder}/*") ?: []);
    rmdir($folder);
});
