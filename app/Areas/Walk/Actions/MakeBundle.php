<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Walk\Actions;

use Illuminate\Contracts\Filesystem\Filesystem;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Areas\Walk\Data\RemovalLine;
use LucidStep\App\Areas\Walk\Queries\ReadRemovals;
use LucidStep\App\Areas\Walk\Queries\WriteProtocol;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\StoredFile;
use LucidStep\App\Support\Record\BundleChecker;
use LucidStep\App\Support\Record\CycleChain;
use LucidStep\App\Support\Record\Journal;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Record\CanonicalJson;
use LucidStep\Core\Record\Chain;
use LucidStep\Core\Record\Event;
use LucidStep\Core\Record\Protocol;
use LucidStep\Core\Record\Signed;
use LucidStep\Core\Record\StoredEvent;

/**
 * Packs the record of an attempt so that it can be checked outside: events, evidence, the case as it was walked, a
 * protocol, and the checker. The same record gives the same bytes.
 */
final readonly class MakeBundle
{
    /** When everything in a bundle was last changed, so that the same record gives the same file. */
    private const TIME = 315_619_200;

    private const JSON = \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;

    public function __construct(
        private Filesystem $files,
        private WriteProtocol $protocol,
        private ReadRemovals $removed,
        private Journal $journal,
        private CycleChain $chain,
        private RecordSigner $signer,
    ) {}

    /**
     * @return string the path of a temporary ZIP file; the caller deletes it
     */
    public function __invoke(Attempt $attempt): string
    {
        $attempt->loadMissing('entry.cycle', 'tester');
        $cycle = $attempt->entry->cycle;
        $removals = $this->removed->of($attempt->id);
        $line = static fn(StoredEvent $e): string => json_encode(
            [
                'sequence' => $e->event->sequence,
                'hash' => $e->hash,
                'bytes' => $e->bytes,
                'texts' => (object) $e->texts(),
            ],
            self::JSON,
        ) . "\n";
        $stored = $this->journal->events($attempt);
        $chain = $this->chain->events($cycle->id);
        $event = static fn(StoredEvent $s): Event => $s->event;
        $gone = Protocol::gone(array_map($event, $chain), $attempt->id);
        [$protocol, $names] = ($this->protocol)($attempt, array_map($event, $stored), $gone);
        $parts = [
            'README.txt' => (string) file_get_contents(resource_path('record/README.txt')),
            'check.php' => BundleChecker::source(),
            'case.json' => CanonicalJson::encode($attempt->snapshot),
            'events.jsonl' => implode('', array_map($line, $stored)),
            'cycle-events.jsonl' => implode('', array_map($line, $chain)),
            'names.json' => json_encode((object) $names, self::JSON | \JSON_PRETTY_PRINT) . "\n",
            'protocol.md' => $protocol,
        ];
        $zipPath = (string) tempnam(sys_get_temp_dir(), 'lucid-bundle-');
        $zip = new \ZipArchive();
        $zip->open($zipPath, \ZipArchive::OVERWRITE);
        $listed = $copies = [];
        foreach ($parts as $path => $text) {
            $this->add($zip, $path, $text);
            $listed[] = ['path' => $path, 'sha256' => hash('sha256', $text), 'bytes' => \strlen($text)];
        }
        foreach ($this->evidence($attempt) as $file) {
            $extension =
                ['image/png' => 'png', 'image/jpeg' => 'jpg', 'image/webp' => 'webp', 'video/webm' => 'webm', 'video/mp4' => 'mp4'][
                    $file->media_type
                ] ?? 'txt';
            $copy = $this->copy($file);
            if (null !== $copy) {
                $copies[] = $copy;
                $path = "evidence/{$file->sha256}.{$extension}";
                $zip->addFile($copy, $path);
                $zip->setMtimeName($path, self::TIME);
                $listed[] = ['path' => $path, 'sha256' => (string) hash_file('sha256', $copy), 'bytes' => (int) filesize($copy)];
            }
        }
        $manifest =
            json_encode(
                [
                    'format' => 'lucid-step-record/2',
                    'attempt' => [
                        'id' => $attempt->id,
                        'number' => $attempt->number,
                        'verdict' => $attempt->verdict?->value,
                        'events' => $attempt->sequence,
                        'head' => $attempt->head,
                        'sealed' => $attempt->sealed_head,
                    ],
                    'cycle' => [
                        'id' => $cycle->id,
                        'key' => $cycle->key,
                        'name' => $cycle->name,
                        'events' => $cycle->log_sequence,
                        'head' => '' === $cycle->log_head ? Chain::start($cycle->id) : $cycle->log_head,
                    ],
                    'case' => [
                        'key' => $attempt->snapshot['key'],
                        'version' => $attempt->snapshot['version'],
                        'title' => $attempt->snapshot['title'],
                    ],
                    'removed' => array_map(
                        static fn(RemovalLine $r): array => [
                            'kind' => $r->kind,
                            'subject' => $r->subject,
                            'reason' => $r->reason,
                            'by' => $r->by?->name,
                            'at' => $r->at,
                        ],
                        $removals,
                    ),
                    'files' => $listed,
                ],
                self::JSON | \JSON_PRETTY_PRINT,
            ) . "\n";
        $this->add($zip, 'manifest.json', $manifest);
        $sha256 = hash('sha256', $manifest);
        $this->add($zip, 'seal.txt', "{$sha256}\n");
        $this->add($zip, 'signature.txt', $this->signature($sha256));
        $zip->close();
        array_map(unlink(...), $copies);

        return $zipPath;
    }

    /**
     * @param  string  $sha256 of the manifest
     */
    private function signature(string $sha256): string
    {
        [$fingerprint, $signature] = explode(':', $this->signer->sign(Signed::bundle($sha256)), 2);
        $key = base64_encode((string) $this->signer->publicKey($fingerprint));

        return "fingerprint {$fingerprint}\nkey {$key}\nsignature {$signature}\n";
    }

    private function add(\ZipArchive $zip, string $path, string $text): void
    {
        $zip->addFromString($path, $text);
        $zip->setMtimeName($path, self::TIME);
    }

    /**
     * A file of the storage beside the bundle, piece by piece: recordings are large.
     *
     * @return ?string its path; null when it is not there
     */
    private function copy(StoredFile $file): ?string
    {
        $from = $this->files->exists($file->path()) ? $this->files->readStream($file->path()) : null;
        if (null === $from) {
            return null;
        }
        $path = (string) tempnam(sys_get_temp_dir(), 'lucid-evidence-');
        file_put_contents($path, $from);
        fclose($from);

        return $path;
    }

    /**
     * Every file that an event of the attempt names, taken off ones among them; what was removed has no content any more.
     *
     * @return list<StoredFile>
     */
    private function evidence(Attempt $attempt): array
    {
        $hashes = [];
        foreach (DB::table('events')->where('attempt_id', $attempt->id)->orderBy('sequence')->pluck('evidence') as $of) {
            array_push($hashes, ...json_decode((string) $of, true, 16, \JSON_THROW_ON_ERROR));
        }
        $gone = DB::table('removals')->where('attempt_id', $attempt->id)->where('kind', 'file')->pluck('subject')->all();

        return array_values(
            StoredFile::query()
                ->whereIn('sha256', array_diff(array_unique($hashes), $gone))
                ->orderBy('sha256')
                ->get()
                ->all(),
        );
    }
}
