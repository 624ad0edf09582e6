<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

use Illuminate\Contracts\Filesystem\Filesystem;
use LucidStep\App\Models\StoredFile;
use LucidStep\Core\Record\Signed;
use LucidStep\Core\Record\StoredEvent;

/**
 * Packs a record as a ZIP that is checked outside: its parts, its files, a manifest with the digest of each, the seal and the signature
 * under that, and the checker. The same record gives the same bytes.
 */
final readonly class BundleFile
{
    /** When everything in a bundle was last changed, so that the same record gives the same file. */
    private const TIME = 315_619_200;

    public const JSON = \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES;

    private const ENDINGS = [
        'image/png' => 'png',
        'image/jpeg' => 'jpg',
        'image/webp' => 'webp',
        'video/webm' => 'webm',
        'video/mp4' => 'mp4',
    ];

    public function __construct(private Filesystem $files, private RecordSigner $signer) {}

    /**
     * Events as they stand in a bundle: each a line, with what people wrote in it and the salts beside its exact bytes.
     *
     * @param  list<StoredEvent>  $events in order
     */
    public static function events(array $events): string
    {
        $line = static fn(StoredEvent $e): string => json_encode(
            ['sequence' => $e->event->sequence, 'hash' => $e->hash, 'bytes' => $e->bytes, 'texts' => (object) $e->texts()],
            self::JSON,
        ) . "\n";

        return implode('', array_map($line, $events));
    }

    /**
     * @param  string  $readme under which name the text stands that says what is in it
     * @param  array<string, string>  $parts texts by path
     * @param  list<StoredFile>  $evidence
     * @param  array<string, mixed>  $about what the manifest says of the record
     *
     * @return string the path of a temporary ZIP file; the caller deletes it
     */
    public function make(string $readme, array $parts, array $evidence, array $about): string
    {
        $parts = [
            'README.txt' => (string) file_get_contents(resource_path("record/{$readme}")),
            'check.php' => BundleChecker::source(),
            ...$parts,
        ];
        $zipPath = (string) tempnam(sys_get_temp_dir(), 'lucid-bundle-');
        $zip = new \ZipArchive();
        $zip->open($zipPath, \ZipArchive::OVERWRITE);
        $listed = $copies = [];
        foreach ($parts as $path => $text) {
            $this->add($zip, $path, $text);
            $listed[] = ['path' => $path, 'sha256' => hash('sha256', $text), 'bytes' => \strlen($text)];
        }
        foreach ($evidence as $file) {
            $copy = $this->copy($file);
            if (null !== $copy) {
                $copies[] = $copy;
                $path = "evidence/{$file->sha256}." . (self::ENDINGS[$file->media_type] ?? 'txt');
                $zip->addFile($copy, $path);
                $zip->setMtimeName($path, self::TIME);
                $listed[] = ['path' => $path, 'sha256' => (string) hash_file('sha256', $copy), 'bytes' => (int) filesize($copy)];
            }
        }
        $manifest = json_encode(['format' => 'lucid-step-record/2', ...$about, 'files' => $listed], self::JSON | \JSON_PRETTY_PRINT) . "\n";
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
}
