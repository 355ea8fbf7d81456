require "socket"
require "timeout"

module Mailing
  # Hands text messages over by SMPP 3.4, the open protocol of text message services. One session serves a batch: bind
  # as a transmitter (4.1.1), submit (4.4.1), unbind (4.2.1); the clauses are those of its specification, issue 1.2.
  class Smpp
    BIND_TRANSMITTER, SUBMIT_SM, UNBIND, ENQUIRE_LINK, GENERIC_NACK = 0x2, 0x4, 0x6, 0x15, 0x80000000
    RESPONSE = 0x80000000
    VERSION = 0x34
    # 5.1.3: what may be otherwise a moment later: system error, bind failed, queue full, throttled.
    LATER = [0x8, 0xD, 0xE, 0xF, 0x14, 0x58].freeze
    # 5.2.19: plain ASCII, else UCS-2.
    ASCII, UCS2 = 1, 8
    # 5.2.5, 5.2.6: an international number, a name, a national number.
    INTERNATIONAL, NAMED, ISDN = 1, 5, 1
    # 4.4.1: what is longer goes as message_payload (5.3.2.32).
    SHORT_OCTETS = 140
    MESSAGE_PAYLOAD = 0x0424
    MOST_OCTETS = 65_536
    WAIT_S = 10
    # For one message, whatever else the service sends in between.
    WHOLE_S = 30

    # @param settings [Hash] address, port, system_id, password, from
    def initialize(settings)
      @settings = settings
      @sequence = 0
    end

    # @param to [String] the number, such as +4755000000
    # @raise [Refused, Unreachable]
    def deliver(to:, text:)
      status = Timeout.timeout(WHOLE_S) { session && ask(SUBMIT_SM, submission(to.delete("+"), text)) }
      return if status.zero?

      if LATER.include?(status)
        give_up("the service answers #{status}")
      else
        raise(Refused, format("The text message service refuses the number or the message (status 0x%02X).", status))
      end
    rescue SystemCallError, IOError, SocketError, Timeout::Error => error
      give_up(error.message)
    end

    def close
      ask(UNBIND, "") if @socket
    rescue SystemCallError, IOError, Timeout::Error
      nil # it was gone already
    ensure
      drop
    end

    private

    # @return [true] once there is one
    def session
      return true if @socket

      @socket = Socket.tcp(@settings[:address], @settings[:port], connect_timeout: WAIT_S)
      # interface_version, then ton, npi and range of our own address, which are the service's to know
      status = ask(
        BIND_TRANSMITTER, [@settings[:system_id], @settings[:password], "", VERSION, 0, 0, ""].pack("Z*Z*Z*CCCZ*")
      )
      status.zero? || give_up("the service does not let us in (status #{status})")
    end

    def submission(number, text)
      coding, octets =
        text.ascii_only? ? [ASCII, text.b] : [UCS2, text.encode("UTF-16BE", invalid: :replace, undef: :replace).b]
      long = octets.bytesize > SHORT_OCTETS
      # service_type, source, destination; esm_class, protocol_id, priority; schedule, validity; receipt, replace,
      # coding, default; length
      fields = [
        "", NAMED, 0, @settings[:from], INTERNATIONAL, ISDN, number, 0, 0, 0, "", "", 0, 0, coding, 0,
        long ? 0 : octets.bytesize
      ]
      fields.pack("Z*CCZ*CCZ*CCCZ*Z*CCCCC") + (long ? [MESSAGE_PAYLOAD, octets.bytesize].pack("nn") : "") + octets
    end

    # Sends one request and waits for its response. @return [Integer] its status
    def ask(command, body)
      @sequence = @sequence % 0x7FFFFFFF + 1
      @socket.write([16 + body.bytesize, command, 0, @sequence].pack("N4") + body)
      loop do
        id, status, sequence = receive
        next @socket.write([16, ENQUIRE_LINK | RESPONSE, 0, sequence].pack("N4")) if id == ENQUIRE_LINK
        return status if sequence == @sequence && [command | RESPONSE, GENERIC_NACK].include?(id)
      end
    end

    def receive
      length, id, status, sequence = read(16).unpack("N4")
      raise IOError, "the service sends what is no SMPP" unless length.between?(16, MOST_OCTETS)

      read(length - 16)
      [id, status, sequence]
    end

    def read(octets)
      return "" if octets.zero?

      Timeout
        .timeout(WAIT_S) { @socket.read(octets) }
        .tap { |got| raise EOFError, "the service has hung up" if got.nil? || got.bytesize < octets }
    end

    def give_up(reason)
      drop
      raise Unreachable, "Text messages: #{reason}"
    end

    def drop
      @socket&.close
    rescue IOError
      nil
    ensure
      @socket = nil
    end
  end
end
