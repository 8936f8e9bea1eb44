<?php

declare(strict_types=1);

namespace App\Demo;

use App\Assets\HouseKit;
use App\Edits\EditRunner;
use App\Models\Production;
use App\Models\Scene;
use App\Models\User;
use App\Speech\Readings;
use CrispReel\Core\Math\Q4;

/** The demo production, built with the same edit commands that people use. Safe to run again. */
final class HalfPastTheTide
{
    public const PRODUCTION = 'Half Past the Tide';

    public function __construct(
        private readonly HouseKit $kit, private readonly EditRunner $runner, private readonly Readings $readings,
    ) {
    }

    /** @param  callable(string): void|null  $said */
    public function load(?callable $said = null): Scene
    {
        $this->kit->install($said);
        $user = $this->person();
        $production = Production::query()->where('name', self::PRODUCTION)
            ->whereHas('members', fn ($q) => $q->where('user_id', $user->id)->where('role', 'owner'))->first();
        if ($production === null) {
            $production = Production::query()
                ->create(['name' => self::PRODUCTION, 'rate_num' => 24, 'rate_den' => 1, 'width' => 1280, 'height' => 720]);
            $production->members()->create(['user_id' => $user->id, 'role' => 'owner']);
        }

        $scene = $production->scenes()->where('name', 'Pier, dusk')->first() ?? $this->build($production);
        // Whoever opens it first hears it at once.
        $this->readings->makeAll($scene);

        return $scene;
    }

    private const STORY = <<<'TEXT'
        It is dusk at the ferry pier. Three passengers wait by the ticket hut.
        Oda pushes the hand cart with the clock along the planks. She calls out to Bram.
        They argue: is it the tide that decides, or the clock?
        Oda hands over the brass key. Bram rings the bell, and the ferry sounds its horn.
        Oda pushes the cart up the ramp. Gulls cry.
        TEXT;

    /** The scene in a production whose kit is installed. */
    public function build(Production $production): Scene
    {
        $scene = $production->scenes()->create(['name' => 'Pier, dusk', 'mood' => 'dusk', 'story' => self::STORY]);
        // By nobody: a first Ctrl+Z must not take the demo apart.
        $this->runner->run($scene, null, $this->stage());
        $this->runner->run($scene->refresh(), null, $this->action());
        $this->runner->run($scene->refresh(), null, $this->coverage());
        $this->runner->run($scene->refresh(), null, self::sounds());

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
            'far-shore', 'sea-all-round', 'ferry-pier', 'ticket-hut', 'ferry', 'bare-bell-post', 'bell', 'bench', 'crate-large',
            'crate-small', 'lantern-post', 'lantern', 'pennant',
        ]);

        $waiting = [
            ['Mirre', 'mirre-tolland', [5.20, -0.72], -76, 2], ['Jory', 'jory-vance', [5.62, -0.20], -80, 4],
            ['Sefa', 'sefa-quill', [4.86, -1.30], -50, 6],
        ];

        return [
            ...$set,
            ['do' => 'item.add', 'asset' => 'hand-cart', 'name' => 'Hand cart', 'position' => [-3.2, 0.30, 1.38], 'headingDeg' => 180],
            ['do' => 'item.add', 'asset' => 'brass-key', 'name' => 'Brass key', 'position' => [-4.7, 1.1, 1.2], 'tape' => 3],
            [
                'do' => 'item.add', 'as' => '$oda', 'asset' => 'oda-ferrant', 'name' => 'Oda', 'position' => [-4.90, 0.30, 1.38],
                'headingDeg' => 90, 'tape' => 0,
            ],
            [
                'do' => 'item.add', 'as' => '$bram', 'asset' => 'bram-tiel', 'name' => 'Bram', 'position' => [3.10, 0.0, 0.55],
                'headingDeg' => -90, 'tape' => 1,
            ],
            ...array_map(
                static fn (array $p): array => [
                    'do' => 'item.add', 'asset' => $p[1], 'name' => $p[0], 'position' => [$p[2][0], 0.0, $p[2][1]], 'headingDeg' => $p[3],
                    'tape' => $p[4],
                ],
                $waiting,
            ),
        ];
    }

    /** @return list<array<string, mixed>> */
    private function action(): array
    {
        $beat = static fn (string $who, string $motion, int $start, array $more = []): array => [
            'do' => 'beat.add', 'item' => $who, 'motion' => $motion, 'start' => $start,
        ] + $more;
        $on = ['keepLooping' => true];

        return [
            // Down the ramp with the cart, then past it and down the step to where Bram stands.
            [
                'do' => 'item.push', 'item' => 'Hand cart', 'by' => 'Oda', 'points' => [[-1.2, 1.38], [0.3, 1.38]], 'start' => 0,
                'speed' => 0.9,
            ],
            [
                'do' => 'beat.add',
                'item' => 'Oda',
                'motion' => 'walk',
                'path' => ['points' => [[-2.0, 0.75], [-1.37, -0.10], [0.2, 0.32], [2.08, 0.55]], 'arrive' => 298, 'faceDeg' => 90],
            ],
            $beat('Oda', 'wave', 302),
            ...self::said(),
            $beat('Oda', 'idle', 518, ['sourceOut' => 5.0]),
            $beat('Oda', 'hand-over', 738),
            $beat('Oda', 'idle', 840, ['play' => $on]),
            $beat('Bram', 'idle', 0, ['settings' => ['seed' => 8], 'play' => ['fill' => 512]]),
            $beat('Bram', 'idle', 650, ['settings' => ['seed' => 8], 'sourceOut' => 3.6]),
            $beat('Bram', 'receive', 738),
            // To the bell, and its pull in the hand.
            $beat('Bram', 'walk', 842, ['settings' => ['speed' => 1.35], 'path' => ['points' => [[1.9, -0.9], [0.55, -1.86]]]]),
            $beat('Bram', 'idle', 974, ['joinFrames' => 12, 'settings' => ['seed' => 8], 'sourceOut' => 3.0]),
            [
                'do' => 'contact.add', 'item' => 'Bram', 'effector' => 'handL', 'target' => 'Bell with a pull', 'mount' => 'pull',
                'from' => 988, 'to' => 1026, 'easeIn' => 14, 'easeOut' => 10,
            ],
            ...self::rung([[988, 0], [996, 13], [1004, -7], [1012, 12], [1020, -6], [1027, 9], [1033, -5], [1039, 3], [1045, 0]]),
            // Who waits does so out of step, and looks when somebody calls.
            $beat('Mirre', 'idle', 0, ['settings' => ['seed' => 3], 'speed' => 0.96, 'play' => $on]),
            $beat('Jory', 'idle', 0, ['settings' => ['seed' => 2], 'speed' => 1.04, 'play' => $on + ['skip' => 90, 'mirror' => true]]),
            $beat('Sefa', 'idle', 0, ['settings' => ['seed' => 1], 'play' => $on + ['skip' => 210]]),
            [
                'do' => 'contact.add', 'item' => 'Mirre', 'effector' => 'look', 'target' => 'Oda', 'mount' => 'head', 'from' => 318,
                'to' => 470, 'easeIn' => 16, 'easeOut' => 30,
            ],
            [
                'do' => 'contact.add', 'item' => 'Sefa', 'effector' => 'look', 'target' => 'Oda', 'mount' => 'head', 'from' => 326,
                'to' => 520, 'easeIn' => 20, 'easeOut' => 24,
            ],
            [
                'do' => 'contact.add', 'item' => 'Bram', 'effector' => 'look', 'target' => 'Oda', 'mount' => 'head', 'from' => 312,
                'to' => 836, 'easeIn' => 12, 'easeOut' => 12,
            ],
            ['do' => 'link.add', 'child' => 'Brass key', 'parent' => 'Oda', 'mount' => 'handR', 'from' => 0, 'to' => 780, 'keep' => 'grip'],
            [
                'do' => 'link.add', 'child' => 'Brass key', 'parent' => 'Bram', 'mount' => 'handR', 'from' => 780, 'keep' => 'grip',
                'easeFrames' => 5,
            ],
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function sounds(): array
    {
        $sound = static fn (string $slug, int $start, float $level, array $more = []): array => [
            'do' => 'sound.add', 'asset' => $slug, 'start' => $start, 'level' => $level,
        ] + $more;

        return [
            ['do' => 'scene.set', 'mix' => ['happens' => true]],
            $sound('sound-waves', 0, -14.0, ['fadeIn' => 1.5, 'fadeOut' => 2.0]), $sound('sound-gulls', 24, -20.0),
            $sound('sound-gulls', 880, -18.0),
            $sound('sound-fiddle', 130, -20.0, ['repeats' => true, 'until' => 316, 'fadeIn' => 1.0, 'fadeOut' => 1.5]),
            $sound('sound-bell-three', 996, -8.0), $sound('sound-horn', 1020, -14.0, ['fadeOut' => 1.0]),
        ];
    }

    /**
     * They argue in six lines; hands go with those for which they are free.
     *
     * @return list<array<string, mixed>>
     */
    private static function said(): array
    {
        return array_map(static fn (array $l): array => [
            'do' => 'line.add', 'item' => $l[0], 'start' => $l[1], 'text' => $l[2], 'delivery' => $l[3] ?? 'plain',
            // Hands that give, take and wave have no others.
            'gestures' => $l[1] > 380 && $l[1] < 700,
        ], [
            ['Oda', 310, 'Bram! *Wait* for me!', 'called'],
            ['Oda', 390, 'I have *wound* this clock for forty years, and *never* once has it waited for the sea.'],
            ['Bram', 516, '*No*, no. The *tide* decides, not the clock. What do I do when they *quarrel*?'],
            ['Oda', 642, 'Then *you* wind it. *Here*: the key is yours.', 'eager'],
            ['Bram', 796, 'It is heavier than it looks.', 'calm'],
            ['Oda', 872, 'So is the sea. Now ring your bell!'],
        ]);
    }

    /**
     * The bell swings on its arm, and the hand that holds its pull goes with it.
     *
     * @param  list<array{int, int}>  $swings  frame, degrees towards who rings
     * @return list<array<string, mixed>>
     */
    private static function rung(array $swings): array
    {
        return array_map(
            static fn (array $s): array => [
                'do' => 'item.key',
                'item' => 'Bell with a pull',
                'frame' => $s[0],
                'position' => [0.09, 1.90, -2.0],
                'rotation' => [0.0, 0.0, sin(deg2rad($s[1]) / 2), cos(deg2rad($s[1]) / 2)],
                'ease' => 'inOut',
            ],
            $swings,
        );
    }

    /** @return list<array<string, mixed>> */
    private function coverage(): array
    {
        $commands = [
            $this->camera('A', 'Wide, the pier', [-2.2, 1.85, 8.4], [-2.5, 0.95, 0.2], 35.0),
            ['do' => 'camera.key', 'camera' => 'A', 'frame' => 150] + $this->pose([-0.3, 1.95, 8.6], [-0.4, 0.95, -0.4], 35.0),
            ['do' => 'camera.key', 'camera' => 'A', 'frame' => 296] + $this->pose([1.5, 1.9, 8.1], [1.45, 1.0, -0.9], 35.0),
            self::framed("Over Bram's shoulder", 440, 'Oda', 'Bram', ['kind' => 'overShoulder', 'size' => 'medium', 'sideDeg' => -30]),
            self::framed("Over Oda's shoulder", 540, 'Bram', 'Oda', ['kind' => 'overShoulder', 'size' => 'medium', 'sideDeg' => 30]),
            self::framed('Close, Oda', 330, 'Oda', 'Bram', ['size' => 'closeUp', 'sideDeg' => -50, 'focalMm' => 75]),
            self::framed('Close, Bram', 600, 'Bram', 'Oda', ['size' => 'closeUp', 'sideDeg' => 36, 'focalMm' => 75]),
            self::framed('Insert, the key', 780, 'Brass key', null, [
                'size' => 'wide', 'sideDeg' => 175, 'height' => 'high', 'focalMm' => 65,
            ]),
            $this->camera('G', 'The bell', [-1.7, 1.58, -0.5], [0.32, 1.25, -1.95], 38.0),
            $this->camera('H', 'Wheel on the ramp', [-0.55, 0.72, 3.75], [-1.0, 0.62, 1.30], 40.0),
        ];
        foreach ([
            ['H', 84], ['A', 130], ['D', 306], ['B', 426], ['C', 508], ['E', 578], ['B', 642], ['F', 760], ['A', 812], ['G', 962],
        ] as [$camera, $frame]) {
            $commands[] = ['do' => 'shot.cut', 'camera' => $camera, 'frame' => $frame];
        }

        return $commands;
    }

    /**
     * A camera that knows whom it films.
     *
     * @param  array<string, mixed>  $how
     * @return array<string, mixed>
     */
    private static function framed(string $name, int $frame, string $subject, ?string $partner, array $how): array
    {
        return ['do' => 'camera.frame', 'name' => $name, 'frame' => $frame, 'subject' => $subject, 'fStop' => 2.8] + $how
            + ($partner === null ? [] : ['partner' => $partner]);
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
