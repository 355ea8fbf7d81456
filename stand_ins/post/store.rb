require "mail"
require "digest"
require "json"
require "time"
require_relative "../../config/clock"

module Post
  # Mail as files: one for each Message-ID and recipient. A mail that arrives again under the same Message-ID, as
  # happens when a sender could not know whether it was taken, is recognised and counted, not kept twice.
  class Store
    Entry = Struct.new(:key, :to, :subject, :from, :at, :path, keyword_init: true)

    def initialize(dir)
      @dir = dir
      @lock = Mutex.new
      FileUtils.mkdir_p(dir)
    end

    def keep(address, source)
      mail = ::Mail.new(source)
      name = Digest::SHA256.hexdigest("#{mail.message_id || source} #{address.downcase}")[0, 32]
      @lock.synchronize do
        path = File.join(@dir, "#{name}.eml")
        return note_repeat(name) if File.exist?(path)

        File.binwrite(
          "#{path}.part", "X-Post-Tray: #{JSON.generate(to: address, at: Clock.now.iso8601(3))}\r\n#{source}"
        )
        File.rename("#{path}.part", path)
      end
    end

    # @return [Array<Entry>] latest first
    def entries(to: nil)
      @cache ||= {}
      found = Dir.glob(File.join(@dir, "*.eml")).filter_map { |path| @cache[path] ||= entry(path) }
      found = found.select { |one| one.to.casecmp?(to) } if to
      found.sort_by { |one| [one.at, one.key] }.reverse
    end

    def addresses = entries.map { |one| one.to.downcase }.uniq.sort

    def mail(key)
      path = File.join(@dir, "#{key}.eml")
      ::Mail.new(File.binread(path)) if key.match?(/\A\h{32}\z/) && File.exist?(path)
    end

    # To whom a mail was delivered.
    def recipient(key) = entries.find { |one| one.key == key }&.to

    def repeats = Dir.glob(File.join(@dir, "*.repeat")).sum { |path| File.size(path) }

    private

    def note_repeat(name) = File.open(File.join(@dir, "#{name}.repeat"), "a") { |file| file << "." }

    def entry(path)
      mail = ::Mail.new(File.binread(path))
      kept = JSON.parse(mail.header["X-Post-Tray"].value)
      Entry.new(
        key: File.basename(path, ".eml"), to: kept["to"], at: Time.iso8601(kept["at"]), subject: mail.subject.to_s,
        from: mail.from&.first.to_s, path: path
      )
    rescue JSON::ParserError, NoMethodError
      nil # a file somebody else put there
    end
  end
end
