<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What a project says of who may what, where the table leaves it to the project.
 */
final readonly class AccessPolicies
{
    /**
     * @param  bool  $readersSeeEvidence   readers see evidence, notes, defects and names of testers
     * @param  bool  $testersWriteCases    testers write in the casebook; else leads alone
     * @param  bool  $secondFactorRequired nobody without a second factor comes in
     */
    public function __construct(
        public bool $readersSeeEvidence = true,
        public bool $testersWriteCases = true,
        public bool $secondFactorRequired = false,
    ) {}

    /**
     * Reads what is stored; what is missing or of another type takes its default.
     *
     * @param  array<array-key, mixed>  $stored
     */
    public static function fromArray(array $stored): self
    {
        $default = (new self())->toArray();
        $flag = static fn(string $key): bool => \is_bool($stored[$key] ?? null) ? $stored[$key] : $default[$key];

        return new self($flag('readers_see_evidence'), $flag('testers_write_cases'), $flag('second_factor_required'));
    }

    /**
     * @return array<string, bool>
     */
    public function toArray(): array
    {
        return [
            'readers_see_evidence' => $this->readersSeeEvidence,
            'testers_write_cases' => $this->testersWriteCases,
            'second_factor_required' => $this->secondFactorRequired,
        ];
    }
}
