<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Figure;

use Closure;
use CrispReel\Core\Geometry\Sdf\Field;
use CrispReel\Core\Geometry\Sdf\Solid;
use CrispReel\Core\Math\Ease;
use CrispReel\Core\Math\V3;

/** Hair and hats. All of it is one soft body with the head, painted in strokes by its ripples. */
final class HairMaker
{
    public const STYLES = ['bun', 'cropped', 'long', 'bob', 'curly', 'ponytail', 'plaits', 'bald'];

    public const HATS = ['none', 'cap', 'knit', 'brim'];

    private readonly bool $hat;

    public function __construct(private readonly Workshop $shop)
    {
        $this->hat = $shop->spec()->hat !== 'none';
    }

    public function make(): void
    {
        $solids = match ($this->shop->spec()->hair) {
            'bun' => [...$this->parted(), ...$this->bun()],
            'long' => [...$this->parted(), ...$this->curtain(-0.30, 0.030)],
            'bob' => [...$this->parted(), ...$this->curtain(-0.135, 0.036)],
            'curly' => $this->curly(),
            'ponytail' => [...$this->parted(), ...$this->tail()],
            'plaits' => [...$this->parted(), ...$this->plaits()],
            'bald' => $this->wreath(),
            default => $this->cropped(),
        };
        $c = $this->shop->body->onFace(...);
        $low = $this->shop->spec()->hair === 'long'
            ? -0.36
            : ($this->shop->spec()->hair === 'plaits' ? -0.34 : ($this->shop->spec()->hair === 'ponytail' ? -0.24 : -0.20));
        $wide = $this->shop->spec()->hair === 'curly' ? 0.22 : 0.19;
        $field = new Field([...$solids, ...$this->under()], $c(-$wide, $low, -0.25), $c($wide, $this->hat ? 0.10 : 0.26, 0.15));
        $this->shop->soft(
            'hair', 'hair', $field, in_array($this->shop->spec()->hair, ['long', 'bob', 'curly'], true) ? 0.031 : 0.0245, 'hair',
            static fn (): array => ['head' => 1.0], onHead: true,
        );
        match ($this->shop->spec()->hat) {
            'knit' => $this->knitHat(),
            'brim' => $this->brimHat(),
            default => null,
        };
    }

    /** @return list<Solid> what a hat leaves of the hair */
    private function under(): array
    {
        return $this->hat ? [Solid::cut([0.0, 1.0, 0.0], $this->shop->body->face[1] + 0.125, 0.02)] : [];
    }

    /** @return Closure(float, float, float): float strands that run down from the crown */
    private static function strands(float $depth): Closure
    {
        return static fn (float $x, float $y, float $z): float => $depth * sin(atan2($x, $y + 0.10) * 15)
            * Ease::between(-0.13, -0.02, 0.10 - $z);
    }

    /** @return list<Solid> */
    private function parted(): array
    {
        $c = $this->shop->body->onFace(...);
        $line = V3::unit([0.0, -0.62, 0.79]);

        return [
            Solid::ellipsoid($c(0.0, 0.042, -0.026), [0.135, $this->hat ? 0.118 : 0.126, 0.142])->rippled(self::strands(0.0042)),
            Solid::cut($line, V3::dot($line, $c(0.0, 0.074, 0.098)), 0.02),
            Solid::cut([0.0, -1.0, 0.0], -($this->shop->body->face[1] - 0.075), 0.03),
            ...Solid::both([Solid::cone($c(0.075, 0.085, 0.070), $c(0.127, 0.0, 0.012), 0.026, 0.018, 0.025)]),
            ...($this->hat ? [] : [Solid::cone($c(0.0, 0.118, 0.055), $c(0.0, 0.14, -0.03), 0.03, 0.03)]),
        ];
    }

    /** @return list<Solid> */
    private function bun(): array
    {
        $c = $this->shop->body->onFace(...);

        return [Solid::ellipsoid($c(0.0, $this->hat ? 0.02 : 0.172, $this->hat ? -0.17 : -0.098), [0.072, 0.060, 0.068], 0.014)->rippled(
            static fn (float $x, float $y, float $z): float => 0.0035 * sin(atan2($x, $z) * 3 + $y * 55),
        )];
    }

    /** @return list<Solid> */
    private function cropped(): array
    {
        $c = $this->shop->body->onFace(...);
        $line = V3::unit([0.0, -0.5, 0.86]);

        return [
            Solid::ellipsoid($c(0.0, 0.032, -0.028), [0.135, $this->hat ? 0.122 : 0.130, 0.137])->rippled(
                static fn (float $x, float $y, float $z): float => 0.003 * sin($x * 60 + $y * 22) * Ease::between(-0.05, 0.05, $y),
            ),
            Solid::cut($line, V3::dot($line, $c(0.0, $this->hat ? 0.05 : 0.085, $this->hat ? 0.03 : 0.092)), 0.02),
            Solid::cut([0.0, -1.0, 0.0], -($this->shop->body->face[1] - 0.105), 0.03),
        ];
    }

    /**
     * Hair that falls at the sides and behind, as far as the hem.
     *
     * @return list<Solid>
     */
    private function curtain(float $hem, float $thick): array
    {
        $c = $this->shop->body->onFace(...);
        $wave = static fn (float $x, float $y, float $z): float => 0.0045 * sin(atan2($x, -$z) * 17 + $y * 14);

        return [
            ...Solid::both([
                Solid::cone($c(0.118, 0.03, -0.018), $c(0.132, $hem + 0.03, -0.012), $thick, $thick * 0.95, 0.03)->rippled($wave),
                Solid::cone($c(0.09, 0.02, -0.085), $c(0.098, $hem, -0.088), $thick * 1.35, $thick * 1.2, 0.035)->rippled($wave),
            ]),
            Solid::cone($c(0.0, 0.02, -0.115), $c(0.0, $hem - 0.01, -0.112), $thick * 1.5, $thick * 1.3, 0.04)->rippled($wave),
        ];
    }

    /** @return list<Solid> */
    private function curly(): array
    {
        $c = $this->shop->body->onFace(...);
        $line = V3::unit([0.0, -0.5, 0.86]);
        $curl = static fn (float $x, float $y, float $z): float => 0.011
            * (sin($x * 62 + sin($y * 30) * 1.4) * sin($y * 58 + $x * 12) + 0.7 * sin($z * 60 + $x * 20));

        return [
            Solid::ellipsoid($c(0.0, $this->hat ? 0.03 : 0.070, -0.040), [$this->hat ? 0.155 : 0.172, $this->hat ? 0.13 : 0.160, 0.162])
                ->rippled($curl),
            Solid::cut($line, V3::dot($line, $c(0.0, 0.088, 0.100)), 0.03),
            Solid::cut([0.0, -1.0, 0.0], -($this->shop->body->face[1] - 0.09), 0.05),
        ];
    }

    /** @return list<Solid> */
    private function tail(): array
    {
        $c = $this->shop->body->onFace(...);
        $wave = static fn (float $x, float $y, float $z): float => 0.004 * sin($y * 60 + $x * 30);

        return [
            Solid::ellipsoid($c(0.0, 0.075, -0.165), [0.036, 0.034, 0.030], 0.012),
            Solid::cone($c(0.0, 0.060, -0.190), $c(0.0, -0.06, -0.215), 0.038, 0.040, 0.02)->rippled($wave),
            Solid::cone($c(0.0, -0.06, -0.215), $c(0.0, -0.19, -0.190), 0.040, 0.016, 0.02)->rippled($wave),
        ];
    }

    /** @return list<Solid> */
    private function plaits(): array
    {
        $c = $this->shop->body->onFace(...);
        $beads = [];
        for ($i = 0; $i < 7; $i++) {
            $t = $i / 6;
            $beads[] = Solid::ellipsoid(
                $c(0.128 + 0.012 * sin($t * 3), -0.045 - 0.235 * $t, 0.0 + 0.045 * $t),
                [0.027 - 0.006 * $t, 0.026, 0.025 - 0.005 * $t],
                0.010,
            );
        }

        return Solid::both($beads);
    }

    /** @return list<Solid> hair round the back of a bald head */
    private function wreath(): array
    {
        $c = $this->shop->body->onFace(...);
        $line = V3::unit([0.0, -0.25, 0.97]);

        return [
            Solid::ellipsoid($c(0.0, 0.012, -0.034), [0.141, 0.095, 0.135])
                ->rippled(static fn (float $x, float $y, float $z): float => 0.004 * sin(atan2($x, -$z) * 22 + $y * 30)),
            Solid::cut($line, V3::dot($line, $c(0.0, 0.03, 0.022)), 0.02),
            Solid::cut([0.0, 1.0, 0.0], $this->shop->body->face[1] + 0.052, 0.02),
            Solid::cut([0.0, -1.0, 0.0], -($this->shop->body->face[1] - 0.085), 0.03),
        ];
    }

    private function knitHat(): void
    {
        $c = $this->shop->body->onFace(0.0, 0.085, -0.026);
        $rib = static fn (float $x, float $y, float $z): float => 0.004 * sin(atan2($x, $z) * 26);
        $hat = [
            Solid::ellipsoid(V3::add($c, [0.0, 0.045, 0.0]), [0.150, 0.098, 0.152], 0.02)->rippled($rib),
            Solid::ring(V3::add($c, [0.0, 0.004, 0.0]), 0.131, 0.030, 0.01)->rippled($rib),
            Solid::ellipsoid(V3::add($c, [0.0, 0.152, -0.004]), [0.036, 0.032, 0.036], 0.006)->coloured($this->shop->colour('band')),
        ];
        $field = new Field(
            [...$hat, Solid::cut([0.0, -1.0, 0.0], -($c[1] - 0.028), 0.01)],
            V3::add($c, [-0.19, -0.06, -0.19]),
            V3::add($c, [0.19, 0.21, 0.19]),
        );
        $this->shop->soft('knitHat', 'knit', $field, 0.026, 'hat', static fn (): array => ['head' => 1.0], onHead: true);
    }

    private function brimHat(): void
    {
        $c = $this->shop->body->onFace(0.0, 0.108, -0.024);
        $field = new Field([
            Solid::cone($c, V3::add($c, [0.0, 0.085, -0.004]), 0.136, 0.116, 0.02, [1.0, 1.0, 1.04]),
            Solid::ellipsoid(V3::add($c, [0.0, 0.10, -0.004]), [0.118, 0.034, 0.122], 0.025),
            Solid::ellipsoid(V3::add($c, [0.0, -0.012, 0.0]), [0.232, 0.017, 0.240], 0.012)->turned(-0.06, 0.0, 0.03),
            Solid::ellipsoid(V3::add($c, [0.0, 0.150, 0.02]), [0.020, 0.030, 0.075], 0.02)->carved(),
        ], V3::add($c, [-0.26, -0.08, -0.27]), V3::add($c, [0.26, 0.17, 0.27]));
        $this->shop->soft('brimHat', 'cloth', $field, 0.027, 'hat', static fn (): array => ['head' => 1.0], onHead: true);
        $band = new Field(
            [Solid::ring(V3::add($c, [0.0, 0.016, -0.001]), 0.128, 0.017, 0.004)],
            V3::add($c, [-0.17, -0.02, -0.17]),
            V3::add($c, [0.17, 0.05, 0.17]),
        );
        $this->shop->soft('hatBand', 'cloth', $band, 0.021, 'band', static fn (): array => ['head' => 1.0], onHead: true);
    }
}
