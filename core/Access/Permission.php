<?php

declare(strict_types=1);

namespace LucidStep\Core\Access;

/**
 * What can be allowed to people in a project. {@see Access} says to whom.
 */
enum Permission: string
{
    case Read = 'read';
    case SeeEvidence = 'see_evidence';
    case WorkOnDefects = 'work_on_defects';
    case FileDefects = 'file_defects';
    case Record = 'record';
    case WriteCases = 'write_cases';
    case Lead = 'lead';
    case Administer = 'administer';
    case RemoveContent = 'remove_content';

    /**
     * What it is, in words that follow "may".
     */
    public function words(): string
    {
        return match ($this) {
            self::Read => 'read cases, cycles, results and who takes part',
            self::SeeEvidence => 'read evidence, notes, defects and names of testers',
            self::WorkOnDefects => 'answer defects, ask back and move them up to fixed; ask authors',
            self::FileDefects => 'file, link, verify, close and reopen defects',
            self::Record => 'walk entries and record what was seen',
            self::WriteCases => 'write cases, routines, data tables, suites and requirements',
            self::Lead => 'approve, plan, assign, ask for retests, judge late acts, sign off, set up lists and policies',
            self::Administer => 'look after people, roles, access and limits',
            self::RemoveContent => 'take content out that must not be there',
        };
    }
}
