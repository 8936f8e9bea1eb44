<?php

declare(strict_types=1);

namespace App\Bench;

use App\Exceptions\UserError;
use App\Models\Scene;
use App\Scenes\SceneStream;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Lane;
use CrispReel\Core\Evaluate\SceneEvaluator;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Format\Gltf\GltfReader;
use Symfony\Component\Process\Process;

/** What the core costs, without browser and network. */
final class CoreBench
{
    private const POSES = 4000;

    public function __construct(private readonly SceneStream $stream)
    {
    }

    /** @return array<string, float|int> */
    public function scene(Scene $scene): array
    {
        $begin = hrtime(true);
        $compiled = $this->stream->compile($scene);
        $settled = hrtime(true);
        PoseStream::all($compiled);
        $baked = hrtime(true);
        for ($i = 0; $i < 300; $i++) {
            SceneEvaluator::at($compiled, ($i * 197) % $compiled->frames);
        }
        $evaluated = hrtime(true);
        $seconds = $compiled->frames * $compiled->document->rate->den / $compiled->document->rate->num;

        return [
            'frames' => $compiled->frames, 'settle_ms' => ($settled - $begin) / 1e6, 'bake_ms' => ($baked - $settled) / 1e6,
            'bake_ms_per_scene_second' => ($baked - $settled) / 1e6 / $seconds,
            'whole_scene_at_any_frame_ms' => ($evaluated - $baked) / 3e8,
        ];
    }

    /**
     * One figure and one clip, sampled at the same times by the core and by three.js.
     *
     * @return array<string, float|int>
     */
    public function againstThree(CompiledScene $scene): array
    {
        $lane = self::performer($scene);
        $rate = $scene->document->rate->num / $scene->document->rate->den;
        $glb = SkeletonClip::write($lane, 0, 240, $rate);
        $gltf = GltfReader::read($glb);
        $skeleton = AssetDigest::skeleton($gltf, 0);
        $clip = $gltf->clips()[0];
        $root = $skeleton->index[$lane->figure->skeleton->names[$lane->figure->hips]];
        $worlds = [];
        $pose = static function (int $i) use ($skeleton, $clip, $root): array {
            [$turns, $at] = $clip->pose($skeleton, fmod($i * 0.7548776662, 1.0) * $clip->seconds, $root);

            return $skeleton->world($turns, $at, $root);
        };
        for ($i = 0; $i < self::POSES; $i++) {
            $pose($i);
        }
        $begin = hrtime(true);
        for ($i = 0; $i < self::POSES; $i++) {
            $worlds = $pose($i);
        }
        $ours = (hrtime(true) - $begin) / 1e6 / self::POSES;
        $three = self::three($glb, $clip->seconds);
        $worst = 0.0;
        foreach ($skeleton->names as $j => $name) {
            for ($k = 0; $k < 3; $k++) {
                $worst = max($worst, abs($worlds[0][3 * $j + $k] - $three['places'][$name][$k]));
            }
        }

        return [
            'joints' => $skeleton->count(), 'core_ms_per_pose' => $ours, 'three_ms_per_pose' => $three['ms'],
            'ratio' => $ours / $three['ms'], 'largest_difference_m' => $worst,
        ];
    }

    /** The lane of the first performer. */
    public static function performer(CompiledScene $scene): Lane
    {
        foreach ($scene->lanes as $lane) {
            if ($lane->figure->isHuman()) {
                return $lane;
            }
        }
        throw new UserError('bench.performer', 'The scene has no performer.', 'Measure a scene with one.');
    }

    /** @return array{ms: float, places: array<string, list<float>>} */
    public static function three(string $glb, float $seconds, int $poses = self::POSES): array
    {
        $file = (string) tempnam(sys_get_temp_dir(), 'crisp-reel-bench');
        file_put_contents($file, $glb);
        $p = new Process(['node', base_path('bench/three-mixer.mjs'), $file, (string) $poses, (string) $seconds]);
        $p->setTimeout(120)->run();
        unlink($file);
        if (! $p->isSuccessful()) {
            throw new UserError(
                'bench.node',
                'Node could not run the three.js side: '.trim($p->getErrorOutput()),
                'Run bin/start once, so that the npm packages are installed.',
            );
        }

        /** @var array{ms: float, places: array<string, list<float>>} $data */
        $data = json_decode($p->getOutput(), true, 8, JSON_THROW_ON_ERROR);

        return $data;
    }
}
