<?php

declare(strict_types=1);

namespace LucidStep\Core\Defects;

/**
 * Whether an entry that failed is to be walked again after a fix (rules of the job, 7), and on which build.
 */
final readonly class RetestProposal
{
    /**
     * @param  int  $build  the latest that its fixed defects name, in the order of the project's
     * @param  list<string>  $fixed keys of the defects that are fixed
     * @param  list<string>  $waitsOn keys of other open defects that are not: until then it would fail again
     * @param  bool  $isBehind whether its cycle tests an earlier build
     */
    private function __construct(
        public int $build,
        public string $buildName,
        public array $fixed,
        public array $waitsOn,
        public bool $isBehind,
    ) {}

    /**
     * @param  ?int  $walkedOn where the build of its newest finished attempt stands; null: it names none
     * @param  ?int  $cycleBuild where the build of its cycle stands; null: it names none
     * @param  list<FixState>  $defects it is linked to, each duplicate as the first of its chain
     *
     * @return ?self null where nothing is fixed, or it was walked with the fix already
     */
    public static function of(?int $walkedOn, ?int $cycleBuild, array $defects): ?self
    {
        $fixed = array_filter($defects, static fn(FixState $d): bool => DefectState::Fixed === $d->state && null !== $d->build);
        if ([] === $fixed) {
            return null;
        }
        $latest = array_reduce(
            $fixed,
            static fn(?FixState $max, FixState $d): FixState => null === $max || $d->build > $max->build ? $d : $max,
        );
        $build = (int) $latest?->build;
        if (null !== $walkedOn && $walkedOn >= $build) {
            return null;
        }
        $open = array_filter($defects, static fn(FixState $d): bool => !$d->state->isClosed() && DefectState::Fixed !== $d->state);

        return new self(
            $build,
            $latest->buildName ?? '',
            self::keys($fixed),
            self::keys($open),
            null !== $cycleBuild && $cycleBuild < $build,
        );
    }

    /**
     * @param  array<array-key, FixState>  $defects
     *
     * @return list<string>
     */
    private static function keys(array $defects): array
    {
        return array_values(array_unique(array_map(static fn(FixState $d): string => $d->key, $defects)));
    }
}
