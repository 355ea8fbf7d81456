module Core
  # What a file is, told from its first bytes and not from its name; and names that are safe to keep and to hand out.
  module Paper
    PIECE_BYTES = 1_000_000
    # First bytes => what they are. Office files are ZIP archives inside.
    SIGNATURES = {
      "%PDF-".b => "application/pdf",
      "\x89PNG\r\n\x1A\n".b => "image/png",
      "\xFF\xD8\xFF".b => "image/jpeg",
      "GIF8".b => "image/gif",
      "PK\x03\x04".b => "application/zip",
      "\xD0\xCF\x11\xE0".b => "application/x-ole-storage",
      "{\\rtf".b => "application/rtf",
      "\x1F\x8B".b => "application/gzip"
    }.freeze
    PROGRAMS = ["MZ".b, "\x7FELF".b, "\xCA\xFE\xBA\xBE".b, "\xCF\xFA\xED\xFE".b, "#!".b].freeze
    # What the end of a name promises.
    PROMISES = {
      ".pdf" => "application/pdf",
      ".png" => "image/png",
      ".jpg" => "image/jpeg",
      ".jpeg" => "image/jpeg",
      ".gif" => "image/gif",
      ".docx" => "application/zip",
      ".xlsx" => "application/zip",
      ".pptx" => "application/zip",
      ".odt" => "application/zip",
      ".ods" => "application/zip",
      ".odp" => "application/zip",
      ".zip" => "application/zip"
    }.freeze

    module_function

    # @param head [String] the first bytes
    # @return [String] a content type
    # @raise [Invalid] for programs, and where name and content say different things
    def type_of(name, head)
      if PROGRAMS.any? { |signature| head.start_with?(signature) }
        raise Invalid.new(
          "“#{name}” is a program. Programs are not kept as papers.", pointer: "/name", code: "program"
        )
      end

      found = SIGNATURES.find { |signature, _| head.start_with?(signature) }&.last ||
        (text?(head) ? "text/plain" : "application/octet-stream")
      promised = PROMISES[ending(name)]
      if promised && promised != found
        raise Invalid.new(
          "“#{name}” does not hold what its name says. Perhaps it was renamed, or did not arrive whole.",
          pointer: "/name", code: "content"
        )
      end

      found
    end

    # How many pieces a file of so many bytes comes in.
    def pieces(size_bytes) = -(-size_bytes / PIECE_BYTES)

    # @return [Integer, nil] bytes of the piece with this number; nil where there is none
    def piece_bytes(size_bytes, number)
      last = pieces(size_bytes) - 1
      return unless number.between?(0, last)

      (number == last) ? size_bytes - last * PIECE_BYTES : PIECE_BYTES
    end

    # Where the bytes from one place to another lie.
    # @param from [Integer] place of the first byte
    # @param to [Integer] place of the last
    # @return [Array<Array(Integer, Range)>] numbers of pieces, and which bytes of each
    def parts(from, to)
      (from / PIECE_BYTES..to / PIECE_BYTES).map do |number|
        start = number * PIECE_BYTES
        [number, [from - start, 0].max..[to - start, PIECE_BYTES - 1].min]
      end
    end

    # A name without folders, control characters and what hides in plain sight, such as a turned reading direction.
    # @raise [Invalid] when nothing is left
    def safe_name(name)
      plain =
        name
          .to_s
          .unicode_normalize(:nfc)
          .gsub(/[[:cntrl:]\u200B-\u200F\u202A-\u202E\u2066-\u2069\uFEFF]/, "")
          .split(%r{[/\\]})
          .last
          .to_s
          .strip
          .sub(/\A\.+/, "")
      raise Invalid.new("Give the file a name.", pointer: "/name") if plain.empty?

      (plain.length > 150) ? "#{plain[0, 150 - ending(plain).length]}#{ending(plain)}" : plain
    end

    def ending(name) = name[/\.[A-Za-z0-9]{1,8}\z/].to_s.downcase

    def text?(head) =
      !head.include?("\0") &&
        head
          .dup
          .force_encoding(Encoding::UTF_8)
          .then { |text| text.valid_encoding? || text[0..-5].to_s.valid_encoding? }
  end
end
