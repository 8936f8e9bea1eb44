<?php

declare(strict_types=1);

namespace CrispReel\Core\Intake;

use Closure;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Format\Gltf\GltfLimits;
use CrispReel\Core\Format\Gltf\GltfReader;
use CrispReel\Core\Format\Gltf\Json;
use CrispReel\Core\Format\Gltf\UnableToReadGltf;
use CrispReel\Core\Intake\Troubles\Colliders;
use CrispReel\Core\Intake\Troubles\CutOut;
use CrispReel\Core\Intake\Troubles\Faces;
use CrispReel\Core\Intake\Troubles\Facing;
use CrispReel\Core\Intake\Troubles\Ground;
use CrispReel\Core\Intake\Troubles\Grown;
use CrispReel\Core\Intake\Troubles\Heavy;
use CrispReel\Core\Intake\Troubles\Joints;
use CrispReel\Core\Intake\Troubles\Lying;
use CrispReel\Core\Intake\Troubles\Pictures;
use CrispReel\Core\Intake\Troubles\Pivot;
use CrispReel\Core\Intake\Troubles\SeeThrough;
use CrispReel\Core\Intake\Troubles\Shiny;
use CrispReel\Core\Intake\Troubles\Size;
use CrispReel\Core\Intake\Troubles\Skeletonless;
use CrispReel\Core\Intake\Troubles\Turned;
use CrispReel\Core\Intake\Troubles\Unbound;

/**
 * Goes over a model that arrived: settles it, looks for each trouble in turn, mends what is to be mended, and takes its
 * motions out. The file that arrived is never changed; the same choices give the same result.
 */
final readonly class Examination
{
    /** A rest pose bent further than this from the bound one came out of a motion. */
    private const BENT_DEGREES = 12.0;

    /**
     * @param  list<Finding>  $findings
     * @param  string  $glb  mended, without motions when it is a figure
     * @param  string|null  $light  a lighter copy for work
     * @param  list<array{name: string, seconds: float, glb: string}>  $motions
     */
    private function __construct(
        public array $findings, public PartsList $parts, public string $glb, public ?string $light, public array $motions,
        public string $kind, public int $shapes,
    ) {
    }

    /** @return list<Trouble> in the order in which they are looked for and mended */
    private static function troubles(): array
    {
        return [
            new Colliders, new Unbound, new Lying, new Turned, new Facing, new Size, new Grown, new Ground, new Pivot, new Skeletonless,
            new SeeThrough, new CutOut, new Pictures, new Shiny, new Faces, new Heavy, new Joints,
        ];
    }

    /** @return list<string> codes of all repairs */
    public static function repairs(): array
    {
        return ['bind', ...array_map(static fn (Trouble $t): string => $t->code(), self::troubles())];
    }

    /**
     * @param  string  $format  ending of the file that arrived, lower case, without the dot
     * @param  array<string, array<string, mixed>|false>  $choices  repair to what it is done with (empty: as found); false: not to be done
     * @param  'performer'|'set'|'prop'|null  $kind
     * @param  null|Closure(string): ?string  $companion
     * @param  bool  $all  every safe repair
     *
     * @throws UnableToReadGltf
     */
    public static function of(
        string $bytes, string $format, array $choices = [], ?string $kind = null, ?Closure $companion = null, bool $all = false,
        ?GltfLimits $limits = null,
    ): self {
        $subject = new Subject(GltfDraft::open($bytes, $limits, $companion), $format, $kind);
        // Reads every surface and every key once, so that what is broken is told before anything is built on it.
        $subject->draft->source()->primitives();
        $subject->draft->source()->clips();
        $objects = self::objects($subject);
        $why = self::strays($subject);
        Normals::fill($subject->draft);
        $findings = self::fromMotion($subject, $choices);
        foreach (self::troubles() as $trouble) {
            $code = $trouble->code();
            $before = $subject->left;
            $finding = $trouble->look($subject);
            $choice = $choices[$code] ?? null;
            $mend = $finding?->mend();
            $do = $choice !== false && ($choice !== null || ($mend !== null && ($mend->unasked || ($all && $mend->safe))));
            if ($do) {
                $trouble->mend($subject, ($choice ?: []) + ($mend?->with() ?? []));
            }
            if ($finding !== null) {
                $findings[] = $do && $mend !== null ? $finding->mended() : $finding;
            }
            foreach (array_diff($subject->left, $before) as $name) {
                $why += array_fill_keys(array_keys($objects, $name, true), 'it is a body for collisions');
            }
        }
        Settle::straighten($subject);
        $parts = PartsList::of($subject, $objects, $why);
        if ($parts->made === [] && ! $subject->isFigure() && $subject->draft->list('animations') === []) {
            throw UnableToReadGltf::malformed('file', 'there is nothing in it to draw');
        }
        $glb = $subject->draft->toGlb();
        $motions = self::motions($subject, $glb);
        $shapes = self::shapes($subject);
        $light = null;
        $heavy = array_values(array_filter($findings, static fn (Finding $f): bool => $f->code === 'heavy' && $f->mended))[0] ?? null;
        if ($heavy !== null) {
            $draft = GltfDraft::open($glb);
            Simplify::apply(
                $draft,
                (int) Troubles\Values::number(
                    (($choices['heavy'] ?? []) ?: [])['triangles'] ?? $heavy->mend()?->with()['triangles'] ?? null,
                    30_000.0,
                    500.0,
                    5e6,
                ),
            );
            $light = $draft->toGlb();
        }

        return new self(
            [...$findings, ...self::told($subject, $why, $motions, $shapes)], $parts,
            $subject->isFigure() && $motions !== [] ? ClipSplit::without($glb) : $glb,
            $light !== null && $subject->isFigure() ? ClipSplit::without($light) : $light, $motions, $subject->kind(), $shapes,
        );
    }

    /**
     * Settles a skin; a rest that is a moment of a motion can be replaced by the pose the skin was bound in.
     *
     * @param  array<string, array<string, mixed>|false>  $choices
     * @return list<Finding>
     */
    private static function fromMotion(Subject $subject, array $choices): array
    {
        if (! $subject->isFigure()) {
            return [];
        }
        $settle = new Settle($subject);
        $bent = $settle->bendFromBind();
        $finding = $bent > self::BENT_DEGREES
            ? Finding::ofFile(
                'bind', Severity::Harms,
                sprintf(
                    'It arrives in a pose of its motion: joints are bent by up to %d degrees from the pose it was bound in.',
                    round($bent),
                ),
                'Every motion would be bent by as much.', [], 'Take the bound pose as its rest', safe: true, unasked: true,
            )
            : null;
        $do = $finding !== null && ($choices['bind'] ?? []) !== false;
        if ($do) {
            $settle = new Settle($subject, fromBind: true);
        }
        $settle->apply();
        $out = $finding === null ? [] : [$do ? $finding->mended() : $finding];
        if ($settle->uneven) {
            $out[] = Finding::ofFile(
                'uneven',
                Severity::Look,
                'Some joints are stretched more one way than another.',
                'Their parts may change shape a little when they turn.',
            );
        }

        return $out;
    }

    /** @return array<int, string> node to name of all that is an object: surfaces, cameras, lights */
    private static function objects(Subject $subject): array
    {
        $out = [];
        foreach ($subject->draft->list('nodes') as $i => $n) {
            if (isset($n['mesh']) || isset($n['camera']) || isset(Json::map($n['extensions'] ?? null)['KHR_lights_punctual'])) {
                $out[$i] = $subject->nodes()[$i]['name'];
            }
        }

        return $out;
    }

    /**
     * Cameras and lights of someone else's scene are left out.
     *
     * @return array<int, string> node to why
     */
    private static function strays(Subject $subject): array
    {
        $why = [];
        $without = static fn (array $holder): array => array_filter(
            ['extensions' => array_diff_key(Json::map($holder['extensions'] ?? null), ['KHR_lights_punctual' => 1])],
            static fn (array $e): bool => $e !== [],
        ) + array_diff_key($holder, ['extensions' => 1]);
        $list = $subject->draft->list('nodes');
        foreach ($list as $i => $n) {
            $camera = isset($n['camera']);
            $light = isset(Json::map($n['extensions'] ?? null)['KHR_lights_punctual']);
            if ($camera || $light) {
                $list[$i] = array_diff_key($without($n), ['camera' => 1]);
                if (! isset($n['mesh'])) {
                    $why[$i] = $camera ? 'it is a camera' : 'it is a light';
                }
            }
        }
        $subject->draft->json = Json::map(['nodes' => $list] + $without(array_diff_key($subject->draft->json, ['cameras' => 1])));
        foreach (['extensionsUsed', 'extensionsRequired'] as $key) {
            $names = array_values(array_diff(Json::strings($subject->draft->json[$key] ?? []), ['KHR_lights_punctual']));
            unset($subject->draft->json[$key]);
            $subject->draft->json += $names === [] ? [] : [$key => $names];
        }

        return $why;
    }

    /** @return list<array{name: string, seconds: float, glb: string}> */
    private static function motions(Subject $subject, string $glb): array
    {
        return $subject->draft->list('animations') !== [] && ($subject->isFigure() || $subject->solids() === [])
            ? ClipSplit::of(GltfReader::read($glb))
            : [];
    }

    private static function shapes(Subject $subject): int
    {
        $most = 0;
        foreach ($subject->draft->primitives() as $p) {
            $most = max($most, count($p['targets']));
        }

        return $most;
    }

    /**
     * @param  array<int, string>  $why
     * @param  list<array{name: string, seconds: float, glb: string}>  $motions
     * @return list<Finding>
     */
    private static function told(Subject $subject, array $why, array $motions, int $shapes): array
    {
        $out = [];
        $strays = array_filter($why, static fn (string $w): bool => $w !== 'it is a body for collisions');
        if ($strays !== []) {
            $nodes = $subject->nodes();
            $out[] = Finding::ofFile(
                'strays',
                Severity::Fyi,
                count($strays).' of its cameras and lights were left out.',
                'The scene keeps its own light.',
                names: array_values(array_map(static fn (int $i): string => $nodes[$i]['name'], array_keys($strays))),
            );
        }
        if ($motions !== [] && $subject->isFigure()) {
            $out[] = Finding::ofFile(
                'motions',
                Severity::Fyi,
                count($motions) === 1
                    ? 'The motion in it comes as a motion of its own.'
                    : count($motions).' motions in it come as motions of their own.',
                $subject->isPerson() ? 'Anyone can play them.' : 'It plays what it brought; people cannot.',
                names: array_column($motions, 'name'),
            );
        }
        $still = $subject->draft->list('animations');
        if ($still !== [] && ! $subject->isFigure() && $motions === []) {
            $names = array_map(static fn (array $a): string => is_string($a['name'] ?? null) ? $a['name'] : 'without a name', $still);
            $out[] = Finding::ofFile(
                'still', Severity::Look,
                count($still) === 1
                    ? 'A motion in it moves its parts, and is not brought in.'
                    : count($still).' motions in it move its parts, and are not brought in.',
                'It stands still; key its places by hand, or bring it in as a body with joints.', names: $names,
            );
        }
        if ($shapes > 0) {
            $out[] = Finding::ofFile('shapes', Severity::Fyi, "{$shapes} of {$shapes} face and body shapes are kept.", 'Nothing is lost.');
        }

        return $out;
    }
}
