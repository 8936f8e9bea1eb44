<?php

declare(strict_types=1);

use App\Intake\DropDesk;
use App\Models\Drop;
use App\Models\Scene;
use App\Models\User;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\Utterance;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Str;

/**
 * Drops files the way the page does, and lets the queue run.
 *
 * @param  array<string, string>  $files  path to bytes
 * @return list<array<string, mixed>> slips, in the order of the files
 */
function dropped(Tests\TestCase $test, User $user, Scene $scene, array $files): array
{
    $uuid = (string) Str::uuid();
    $test->actingAs($user)->post("/api/productions/{$scene->production_id}/drops", [
        'drop' => $uuid, 'last' => '1', 'paths' => array_keys($files),
        'files' => array_map(
            static fn (string $path, string $bytes): UploadedFile => UploadedFile::fake()->createWithContent(basename($path), $bytes),
            array_keys($files),
            $files,
        ),
    ], ['Accept' => 'application/json'])->assertStatus(201);
    $drop = Drop::query()->where('uuid', $uuid)->firstOrFail();
    if ($drop->status !== 'done') {
        app(DropDesk::class)->receive($drop);
    }
    $all = collect($test->getJson("/api/productions/{$scene->production_id}/arrivals")->assertOk()->json('arrivals'));

    return $all->whereIn('id', $drop->arrivals()->pluck('id'))->sortBy('id')->values()->all();
}

/** A pier with Oda, Bram and a key. */
function pier(object $test, ?User $user = null): Scene
{
    $scene = $test->scene($user);
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'ferry-pier', 'home' => true],
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [0, 0, 0.5], 'headingDeg' => 90],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [3, 0, 0.5], 'headingDeg' => -90],
        ['do' => 'item.add', 'asset' => 'brass-key', 'name' => 'Key', 'position' => [1, 0.9, 0.5]],
    ], $user);

    return $scene->refresh();
}

function rows(Scene $scene): array
{
    return json_decode((string) json_encode(SceneRows::all($scene->refresh()), JSON_PRESERVE_ZERO_FRACTION), true);
}

/** A small coloured PNG. */
function png(int $width, int $height, int $shade): string
{
    $i = imagecreatetruecolor($width, $height);
    imagefill($i, 0, 0, imagecolorallocate($i, $shade, 90, 255 - $shade));
    ob_start();
    imagepng($i);

    return (string) ob_get_clean();
}

/** Oda and Bram face to face, with a camera. */
function talkers(Tests\TestCase $test): Scene
{
    $scene = $test->scene($test->person());
    $test->edit($scene, [
        ['do' => 'item.add', 'asset' => 'oda-ferrant', 'position' => [-0.5, 0, 0], 'headingDeg' => 90],
        ['do' => 'item.add', 'asset' => 'bram-tiel', 'position' => [0.5, 0, 0], 'headingDeg' => -90],
        ['do' => 'camera.add', 'position' => [0, 1.5, 4], 'rotation' => [0, 0, 0, 1]],
    ]);

    return $scene->refresh();
}

/** @return list<Utterance> */
function utterances(Scene $scene): array
{
    return app(SceneStream::class)->compile($scene->refresh())->utterances;
}

/** @return list<array<string, mixed>> */
function linesOf(Scene $scene): array
{
    return rows($scene)['lines'];
}
