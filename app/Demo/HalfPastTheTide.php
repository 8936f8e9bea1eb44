<?php

declare(strict_types=1);

namespace App\Demo;

use App\Assets\HouseKit;
use App\Edits\EditRunner;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use CrispReel\Core\Math\Q4;

/** The demo production, built with the same edit commands that people use. Safe to run again. */
final class HalfPastTheTide
{
    public const PRODUCTION = 'Half Past the Tide';

    public function __construct(private readonly HouseKit $kit, private readonly EditRunner $runner)
    {
    }

    /** @param  callable(string): void|null  $said */
    public function load(?callable $said = null): Scene
    {
        $this->kit->install($said);
        $user = $this->person();
        $production = Production::query()->where('name', self::PRODUCTION)->whereHas('members', fn ($q) => $q->where('user_id', $user->id)->where('role', 'owner'))->first();
        if ($production === null) {
            $production = Production::query()->create(['name' => self::PRODUCTION, 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
            $production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
        }

        return $production->scenes()->where('name', 'Pier, dusk')->first() ?? $this->build($production);
    }

    /** The scene in a production whose kit is installed. */
    public function build(Production $production): Scene
    {
        $scene = $production->scenes()->create(['name' => 'Pier, dusk', 'mood' => 'dusk']);
        // By nobody: a first Ctrl+Z must not take the demo apart.
        $this->runner->run($scene, null, $this->stage());
        $this->runner->run($scene->refresh(), null, $this->action());
        $this->runner->run($scene->refresh(), null, $this->coverage());

        return $scene->refresh();
    }

    private function person(): User
    {
        /** @var array{email: string, password: string, name: string} $d */
        $d = config('reel.demo');

        return User::query()->firstOrCreate(['email' => $d['email']], ['name' => $d['name'], 'password' => $d['password']]);
    }

    /** @return list<array<string, mixed>> */
    private function stage(): array
    {
        $set = array_map(static fn (string $slug): array => ['do' => 'item.add', 'asset' => $slug, 'home' => true], [
            'far-shore', 'ferry-pier', 'ticket-hut', 'ferry', 'bell-post', 'bench', 'crate-large', 'crate-small', 'lantern-post', 'lantern', 'pennant',
        ]);

        return [
            ...$set,
            ['do' => 'item.add', 'asset' => 'hand-cart', 'name' => 'Hand cart', 'position' => [-0.35, 0.0, -0.85], 'headingDeg' => 8],
            ['do' => 'item.add', 'asset' => 'brass-key', 'name' => 'Brass key', 'position' => [-1.0, 0.9, 0.6], 'tape' => 3],
            ['do' => 'item.add', 'as' => '$oda', 'asset' => 'oda-ferrant', 'name' => 'Oda', 'position' => [-1.0, 0.0, 0.55], 'headingDeg' => 90, 'tape' => 0],
            ['do' => 'item.add', 'as' => '$bram', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [3.10, 0.0, 0.55], 'headingDeg' => -90, 'tape' => 1],
        ];
    }

    /** @return list<array<string, mixed>> */
    private function action(): array
    {
        $beat = static fn (string $who, string $motion, int $start, array $more = []): array => ['do' => 'beat.add', 'item' => $who, 'motion' => $motion, 'start' => $start] + $more;

        return [
            $beat('Oda', 'walk-to-mark', 0, ['settings' => ['metres' => 3.08, 'speed' => 1.15]]),
            $beat('Oda', 'wave', 116),
            $beat('Oda', 'talk', 200, ['settings' => ['seed' => 5, 'seconds' => 5.5]]),
            $beat('Oda', 'idle', 332, ['sourceOut' => 5.0]),
            $beat('Oda', 'talk', 452, ['settings' => ['seed' => 12, 'seconds' => 4.0, 'energy' => 1.1]]),
            $beat('Oda', 'hand-over', 552),
            $beat('Oda', 'idle', 654, ['sourceOut' => 4.0]),
            $beat('Bram', 'idle', 0, ['settings' => ['seed' => 8], 'sourceOut' => 13.5]),
            $beat('Bram', 'talk', 326, ['settings' => ['seed' => 9, 'seconds' => 5.2]]),
            $beat('Bram', 'idle', 452, ['settings' => ['seed' => 8], 'sourceOut' => 4.0]),
            $beat('Bram', 'receive', 552),
            $beat('Bram', 'talk', 654, ['settings' => ['seed' => 21, 'seconds' => 4.0]]),
            ['do' => 'link.add', 'child' => 'Brass key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 0, 'to' => 594, 'keep' => 'grip'],
            ['do' => 'link.add', 'child' => 'Brass key', 'parent' => 'Bram', 'mount' => 'handR', 'from' => 594, 'keep' => 'grip', 'easeFrames' => 5],
        ];
    }

    /** @return list<array<string, mixed>> */
    private function coverage(): array
    {
        $commands = [
            $this->camera('A', 'Wide, the pier', [0.9, 2.05, 9.6], [0.75, 0.95, -1.0], 35.0),
            ['do' => 'camera.key', 'camera' => 'A', 'frame' => 132] + $this->pose([1.5, 1.9, 8.1], [1.45, 1.0, -0.9], 35.0),
            $this->camera('B', "Over Bram's shoulder", [3.98, 1.70, 1.42], [1.95, 1.38, 0.36], 50.0),
            $this->camera('C', "Over Oda's shoulder", [1.22, 1.66, 1.42], [3.25, 1.42, 0.40], 50.0),
            $this->camera('D', 'Close, Oda', [3.05, 1.50, 1.52], [2.20, 1.45, 0.53], 50.0),
            $this->camera('E', 'Close, Bram', [2.10, 1.56, 1.66], [2.99, 1.50, 0.53], 50.0),
            $this->camera('F', 'Insert, the key', [2.30, 1.36, 1.62], [2.60, 1.03, 0.52], 50.0),
            $this->camera('G', 'Two-shot', [2.60, 1.42, 4.30], [2.60, 1.10, 0.3], 50.0),
        ];
        foreach ([['D', 124], ['G', 198], ['B', 240], ['C', 322], ['E', 392], ['B', 456], ['G', 540], ['F', 574], ['E', 632], ['A', 700]] as [$camera, $frame]) {
            $commands[] = ['do' => 'shot.cut', 'camera' => $camera, 'frame' => $frame];
        }

        return $commands;
    }

    /**
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     * @return array<string, mixed>
     */
    private function camera(string $letter, string $name, array $from, array $to, float $focal): array
    {
        return ['do' => 'camera.add', 'letter' => $letter, 'name' => $name] + $this->pose($from, $to, $focal);
    }

    /**
     * @param  array{float, float, float}  $from
     * @param  array{float, float, float}  $to
     * @return array<string, mixed>
     */
    private function pose(array $from, array $to, float $focal): array
    {
        return ['position' => $from, 'rotation' => Q4::lookAt($from, $to), 'focalMm' => $focal, 'fStop' => 2.8];
    }
}
