require "json"
require "securerandom"
require "socket"
require "time"
require "fileutils"
require_relative "../../config/clock"

module Post
  # A text message service on loopback: takes messages by SMPP 3.4 and keeps each as a file. A number that ends in 0000
  # is not known to it.
  class Texts
    Text = Struct.new(:to, :from, :text, :at, keyword_init: true)
    BINDS = [0x1, 0x2, 0x9].freeze
    UNKNOWN_NUMBER = 0x0B
    UNKNOWN_COMMAND = 0x03
    CODINGS = {8 => "UTF-16BE", 3 => "ISO-8859-1"}.freeze

    def initialize(dir)
      @dir = dir
      FileUtils.mkdir_p(dir)
    end

    def start(port)
      server = TCPServer.new("127.0.0.1", port)
      Thread.new { loop { Thread.new(server.accept) { |socket| serve(socket) } } }
    end

    # @return [Array<Text>] latest first
    def all =
      Dir
        .glob(File.join(@dir, "*.json"))
        .map { |path| Text.new(**JSON.parse(File.read(path), symbolize_names: true)) }
        .sort_by(&:at)
        .reverse

    private

    def serve(socket)
      while (header = socket.read(16)) && header.bytesize == 16
        length, command, _, sequence = header.unpack("N4")
        body = socket.read(length - 16).to_s
        status, answer = respond(command, body)
        id = (status == UNKNOWN_COMMAND) ? 0x80000000 : command | 0x80000000
        socket.write([16 + answer.bytesize, id, status, sequence].pack("N4") + answer)
        break if command == 0x6
      end
    rescue SystemCallError, IOError
      nil # hung up
    ensure
      socket.close
    end

    def respond(command, body)
      case command
      when *BINDS then [0, "post tray\0"]
      when 0x4 then take(body)
      when 0x6, 0x15 then [0, ""]
      else [UNKNOWN_COMMAND, ""]
      end
    end

    def take(body)
      _, _, _, from, _, _, to, _, _, _, _, _, _, _, coding, _, length, rest = body.unpack("Z*CCZ*CCZ*CCCZ*Z*CCCCCa*")
      return [UNKNOWN_NUMBER, ""] unless to.match?(/\A\d{6,15}\z/) && !to.end_with?("0000")

      octets = length.zero? ? payload(rest) : rest[0, length]
      text =
        octets
          .dup
          .force_encoding(CODINGS.fetch(coding, "US-ASCII"))
          .encode("UTF-8", invalid: :replace, undef: :replace)
      id = SecureRandom.hex(8)
      File.write(
        File.join(@dir, "#{id}.json"),
        JSON.generate(to: "+#{to}", from: from, text: text, at: Clock.now.iso8601(3))
      )
      [0, "#{id}\0"]
    end

    # The optional parameter that holds a long message.
    def payload(rest)
      while rest.bytesize >= 4
        tag, length, rest = rest.unpack("nna*")
        return rest[0, length] if tag == 0x0424

        rest = rest[length..].to_s
      end
      ""
    end
  end
end
