<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Item;
use CrispReel\Core\Document\Shot;
use CrispReel\Core\Document\Sound;
use CrispReel\Core\Document\TouchUp;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Rig\Figure;
use LogicException;

/**
 * What is settled of a scene so far. Each slot is written by one pass, once, and read after; a slot that is read before it is
 * written, or written twice, is a fault in the order of the passes and says so.
 */
final class Draft
{
    /** @var array<string, mixed> */
    private array $slots = [];

    /** @var list<Finding> */
    private array $notes = [];

    public readonly Surroundings $around;

    private ?Dialogue $dialogue = null;

    private ?OwnPlaces $own = null;

    public function __construct(
        public readonly Document $document,
        public readonly AssetSource $assets,
        public readonly Memory $memory = new Memory,
    ) {
        $this->around = new Surroundings($document, $assets, $memory);
    }

    /** The body of an item, or null where it has none. */
    public function figure(Item $item): ?Figure
    {
        $asset = $this->document->assets[$item->asset];
        $digest = $this->assets->digest($asset);
        if (! is_array($digest['skeleton'] ?? null)) {
            return null;
        }

        return $this->memory->of("figure {$asset->digest} {$asset->blob}", static fn (): Figure => new Figure($asset->blob, $digest));
    }

    public function ownPlaces(): OwnPlaces
    {
        return $this->own ??= new OwnPlaces($this->document, $this->assets, $this->figure(...), $this->around, $this->memory);
    }

    public function note(Finding ...$notes): void
    {
        array_push($this->notes, ...array_values($notes));
    }

    /** @param  list<string>  $order  items, parents before what they carry */
    public function putOrder(array $order): void
    {
        $this->put('order', $order);
    }

    /** @return list<string> */
    public function order(): array
    {
        /** @var list<string> */
        return $this->read('order');
    }

    /** @param  array<string, Placement>  $places  where each item stands by itself */
    public function putPlaces(array $places): void
    {
        $this->put('places', $places);
    }

    /** @return array<string, Placement> */
    public function places(): array
    {
        /** @var array<string, Placement> */
        return $this->read('places');
    }

    /** @param  list<Utterance>  $utterances  in the order in which they begin */
    public function putUtterances(array $utterances): void
    {
        $this->put('utterances', $utterances);
    }

    /** @return list<Utterance> */
    public function utterances(): array
    {
        /** @var list<Utterance> */
        return $this->read('utterances');
    }

    /** Who speaks to whom and who listens; asked for once lanes are settled. */
    public function dialogue(): Dialogue
    {
        return $this->dialogue ??= new Dialogue($this);
    }

    /** @param  array<string, FaceLayer>  $faces  by performer */
    public function putFaces(array $faces): void
    {
        $this->put('faces', $faces);
    }

    /** @param  array<string, Lane>  $lanes  by performer */
    public function putLanes(array $lanes): void
    {
        $this->put('lanes', $lanes);
    }

    /** @return array<string, Lane> */
    public function lanes(): array
    {
        /** @var array<string, Lane> */
        return $this->read('lanes');
    }

    /** @param  array<string, Drive>  $drives  by item */
    public function putDrives(array $drives): void
    {
        $this->put('drives', $drives);
    }

    /** @return array<string, Drive> */
    public function drives(): array
    {
        /** @var array<string, Drive> */
        return $this->read('drives');
    }

    /** @param  list<Shot>  $shots  with every out frame settled */
    public function putLength(int $frames, array $shots): void
    {
        $this->put('frames', $frames);
        $this->put('shots', $shots);
    }

    public function frames(): int
    {
        /** @var int */
        return $this->read('frames');
    }

    /** @param  array<string, list<array{TouchUp, int}>>  $touchUps  by performer, with the joint */
    public function putTouchUps(array $touchUps): void
    {
        $this->put('touchUps', $touchUps);
    }

    /** @param  array<string, list<Grasp>>  $grasps  by performer */
    public function putGrasps(array $grasps): void
    {
        $this->put('grasps', $grasps);
    }

    /** @param  array<string, list<Hold>>  $holds  by performer, in the order in which they are solved */
    public function putHolds(array $holds): void
    {
        $this->put('holds', $holds);
    }

    /** @return array<string, list<Hold>> */
    public function holds(): array
    {
        /** @var array<string, list<Hold>> */
        return $this->read('holds');
    }

    /** @param  array<string, list<Carry>>  $carries  by child, in time order */
    public function putCarries(array $carries): void
    {
        $this->put('carries', $carries);
    }

    /** @param  array<string, ClothRun>  $cloths  by item */
    public function putCloths(array $cloths): void
    {
        $this->put('cloths', $cloths);
    }

    /** @param  array<string, FramedCamera>  $framed  by camera */
    public function putFramed(array $framed): void
    {
        $this->put('framed', $framed);
    }

    /** @param  array<string, Eyes>  $eyes  by performer */
    public function putEyes(array $eyes): void
    {
        $this->put('eyes', $eyes);
    }

    /** All that poses are worked out from. */
    public function poses(): Poses
    {
        /** @var array<string, list<Carry>> $carries */
        $carries = $this->read('carries');

        return $this->posesWith($carries);
    }

    /**
     * The same while carries are settled: with those that are. What hangs on a performer and is not settled is not reached for yet.
     *
     * @param  array<string, list<Carry>>  $carries  of items that are settled, or as far as they are
     */
    public function posesWith(array $carries): Poses
    {
        $holds = array_map(static fn (array $of): array => array_values(array_filter(
            $of,
            static fn (Hold $h): bool => $h->contact->target === null || isset($carries[$h->contact->target]),
        )), $this->holds());

        /** @var array<string, list<Grasp>> $grasps */
        $grasps = $this->read('grasps');

        /** @var array<string, list<array{TouchUp, int}>> $touchUps */
        $touchUps = $this->read('touchUps');

        /** @var array<string, FaceLayer> $faces */
        $faces = $this->read('faces');

        /** @var array<string, Eyes> $eyes */
        $eyes = $this->read('eyes');

        return new Poses(
            $this->document, $this->lanes(), $this->places(), $carries, $grasps, $holds, $touchUps, $this->drives(), $faces, $eyes,
        );
    }

    public function scene(): CompiledScene
    {
        /** @var list<Shot> $shots */
        $shots = $this->read('shots');

        /** @var array<string, ClothRun> $cloths */
        $cloths = $this->read('cloths');

        /** @var array<string, FramedCamera> $framed */
        $framed = $this->read('framed');

        $poses = $this->poses();
        $hangs = array_filter($this->document->sounds, static fn (Sound $s): bool => $s->thing !== null);
        $noises = $this->document->mix->happens || $hangs !== [] ? (new Noises($this, $poses, $this->frames()))->all() : [];
        $heard = Heard::of($this->document, $this->assets, $this->utterances(), $this->frames(), $noises);

        return new CompiledScene(
            $poses, $this->order(), $this->frames(), $shots, $this->notes, $cloths, $framed, $this->utterances(), $heard,
        );
    }

    private function put(string $slot, mixed $value): void
    {
        if (array_key_exists($slot, $this->slots)) {
            throw new LogicException("\"{$slot}\" is settled already.");
        }
        $this->slots[$slot] = $value;
    }

    private function read(string $slot): mixed
    {
        if (! array_key_exists($slot, $this->slots)) {
            throw new LogicException("\"{$slot}\" is not settled yet.");
        }

        return $this->slots[$slot];
    }
}
