require_relative "../app_helper"
require "puma"
require "puma/server"

RSpec.describe UseCases::Calendars, at: Stage::STORY do
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:calendars) { UseCases::Calendars.new(by: wen, clock: clock) }
  let(:id) { key }

  def shown = Views::Calendars.new(clock: clock).show(id)

  def ics(*starts, more: "")
    events = starts.each_with_index.map do |start, i|
      "BEGIN:VEVENT\r\nUID:#{i}\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:#{i}\r\n" \
        "DTSTART:#{start}\r\nDURATION:PT1H\r\n#{more}END:VEVENT\r\n"
    end
    "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{events.join}END:VCALENDAR\r\n"
  end

  def add(content) = calendars.add(id: id, name: "Work", kind: "file", person_id: wen, content: content)

  def spans =
    Records::BusySpan
      .order(:starts_min)
      .map { |span| [Time.at(span.starts_min * 60).utc.strftime("%d %H:%M"), span.title] }

  it "replaces what it knew by the difference, and keeps it when the newer file is broken" do
    add(ics("20261201T100000Z", "20261202T100000Z"))
    expect([calendars.read_next, calendars.read_next]).to eq [true, false]
    kept = Records::BusySpan.order(:starts_min).first
    calendars.replace(id: id, content: ics("20261201T100000Z", "20261203T100000Z"))
    calendars.read_next
    expect(spans).to eq [["01 10:00", "0"], ["03 10:00", "1"]]
    expect(Records::BusySpan.order(:starts_min).first).to eq kept
    Records::Calendar.where(id: id).update_all(
      incoming: ics("20261204T100000Z").sub("END:VEVENT", ""), state: "waiting"
    ) # past the first look
    calendars.read_next
    expect(shown).to include(
      state: "failed", last_error: /END:VCALENDAR stands where END:VEVENT is expected/
    )
    expect(spans.size).to eq 2
  end

  # Each time progress is written, as it is written.
  def told
    seen = []
    subscriber = ActiveSupport::Notifications.subscribe("sql.active_record") do |event|
      done = event.payload[:sql][/UPDATE `calendars` SET .*`done` = (\d+)/, 1]
      next unless done

      seen << done.to_i
      yield seen if block_given?
    end
    calendars.read_next
    seen
  ensure
    ActiveSupport::Notifications.unsubscribe(subscriber)
  end

  def many = ics(
    *Array.new(5_000) { |i| (Time.utc(2026, 11, 1) + i * 900).strftime("%Y%m%dT%H%M%SZ") },
    more: "RRULE:FREQ=WEEKLY;COUNT=4\r\n"
  )

  it "reads 5,000 events with recurrences, telling how far it is" do
    add(many)
    seen = told
    expect([seen.first, seen.last]).to eq [0, 5_000]
    expect(seen.uniq.size).to be > 2
    expect(Records::BusySpan.count).to be > 10_000
  end

  it "stops when cancelled on the way, and what was known before stays" do
    add(ics("20261201T100000Z"))
    calendars.read_next
    calendars.replace(id: id, content: many)
    told { |seen| described_class.new(by: wen, clock: clock).cancel(id) if seen.size == 1 }
    expect([shown[:state], spans]).to eq ["cancelled", [["01 10:00", "0"]]]
  end

  it "is taken over by another worker when the one that read it has died" do
    add(ics("20261201T100000Z"))
    Records::Calendar.where(id: id).update_all(state: "running", claim: key, leased_until: clock.now + 30)
    expect(calendars.read_next).to be false
    later = described_class.new(clock: SetClock.new(clock.now + 61))
    expect([later.read_next, spans.size]).to eq [true, 1]
  end

  it "expands anew as time goes on, so that 18 months ahead are always known" do
    add(ics("20261201T100000Z", more: "RRULE:FREQ=MONTHLY\r\n"))
    calendars.read_next
    expect(Records::BusySpan.maximum(:starts_min) * 60).to be_within(32 * 86_400).of(Time.utc(2028, 5, 24).to_i)
    in_spring = described_class.new(clock: SetClock.new(Time.utc(2027, 4, 1)))
    in_spring.renew
    in_spring.read_next
    expect(Records::BusySpan.maximum(:starts_min) * 60).to be_within(32 * 86_400).of(Time.utc(2028, 10, 1).to_i)
    expect(Records::BusySpan.minimum(:starts_min) * 60).to be > Time.utc(2027, 2, 25).to_i
  end

  # A real server on loopback, which the tests allow by host and port.
  describe Fetching do
    answers = {
      "/wen.ics" => ->(env) do
        if env["HTTP_IF_NONE_MATCH"] == "\"1\""
          [304, {}, []]
        else
          [
            200,
            {"etag" => "\"1\"", "content-type" => "text/calendar"},
            [
              "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\n" \
                "DTSTART:20261201T100000Z\r\nDURATION:PT1H\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"
            ]
          ]
        end
      end,
      "/round" => ->(_) { [302, {"location" => "/round"}, []] },
      "/inwards" => ->(_) { [302, {"location" => "http://127.0.0.1:1/secret"}, []] },
      "/once" => ->(_) { [301, {"location" => "/wen.ics"}, []] },
      "/large" => ->(_) { [200, {}, Array.new(21) { "x" * 1_000_000 }] },
      "/gone" => ->(_) { [410, {}, []] }
    }

    before(:context) do
      @server = Puma::Server.new(
        ->(env) { answers.fetch(env["PATH_INFO"]).call(env) }, nil, {log_writer: Puma::LogWriter.null}
      )
      @port = @server.add_tcp_listener("127.0.0.1", 0).addr[1]
      @server.run
    end
    after(:context) { @server.stop(true) }

    let(:fetching) { described_class.new(own: ["127.0.0.1:#{@port}"]) }

    def address(path) = "http://127.0.0.1:#{@port}#{path}"

    {
      "/round" => /without an end/, "/inwards" => /server's own, or one/, "/large" => /larger than 5 MB/,
      "/gone" => /answers 410/
    }.each do |path, sentence|
      it("gives up on #{path}, saying why") do
        expect { fetching.get(address(path)) }.to raise_error(Fetching::Failed, sentence)
      end
    end

    # Who is asked outside leads nowhere inside, not to what may be read there by its own address either.
    it "is led into no network of our own by somebody outside, and reads at the usual ports and those set" do
      names = {"outside.example": ["93.184.216.34"], "inside.example": ["127.0.0.1"]}
      resolver = Struct.new(:names) { def getaddresses(name) = names.fetch(name.to_sym, [name]) }.new(names)
      own = ["inside.example:#{@port}"]
      led = described_class.new(own: own, resolver: resolver)
      led_on = {
        "outside.example" => Net::HTTPFound.new("1.1", "302", "Found").tap do |answer|
          answer["location"] = "http://inside.example:#{@port}/wen.ics"
        end
      }
      asked = []
      real = led.method(:ask)
      led.define_singleton_method(:ask) do |uri, etag, last_modified, inward|
        asked << uri.host
        led_on.key?(uri.host) ? [led_on[uri.host], nil] : real.call(uri, etag, last_modified, inward)
      end
      expect { led.get("http://outside.example/round.ics") }.to raise_error(Fetching::Failed, /server's own, or one/)
      expect(led.get("http://inside.example:#{@port}/wen.ics").body).to include "BEGIN:VCALENDAR"
      expect { led.get("http://outside.example:8080/x.ics") && led_on.clear }.to raise_error(Fetching::Failed)
      led_on.clear
      [25, 8080, 3306].each do |port|
        expect { led.get("http://outside.example:#{port}/x.ics") }
          .to raise_error(Fetching::Failed, /at the ports 80 and 443 only; #{port} is another/)
      end
      expect(asked.first(2)).to eq %w[outside.example inside.example]
    end

    # Names become addresses in one place; here that place is a table, so that nothing leaves the machine.
    def resolving(**names) = described_class.new(
      own: [], resolver: Struct.new(:names) { def getaddresses(name) = names.fetch(name.to_sym, [name]) }.new(names)
    )

    %w[
      127.0.0.1
      ::1
      169.254.169.254
      10.0.0.1
      0.0.0.0
      ::ffff:127.0.0.1
      2002:7f00:1::1
      2001:0:7f00:1::1
      fec0::1
      64:ff9b:1::7f00:1
      64:ff9b::7f00:1
      192.0.2.7
      192.88.99.1
      100::1
      fd00::1
      240.0.0.1
      224.0.0.1
    ].each do |inside|
      it "asks nothing of #{inside}, by number or by a name that leads there" do
        host = inside.include?(":") ? "[#{inside}]" : inside
        expect { resolving.get("http://#{host}/") }.to raise_error(Fetching::Failed, /not read from/)
        expect { resolving("calendar.example": [inside]).get("http://calendar.example/") }.to raise_error(
          Fetching::Failed, /not read from/
        )
        expect {
          resolving("calendar.example": ["198.51.99.1", inside]).get("http://calendar.example/")
        }.to raise_error(Fetching::Failed, /not read from/)
      end
    end

    # Against another list of IANA's registries: Python's ipaddress.
    it "takes no address for public that Python's ipaddress does not" do
      random = Random.new(9)
      all =
        Array.new(4_000) { IPAddr.new(random.rand(2**32), Socket::AF_INET).to_s } +
        Array.new(4_000) do
          IPAddr.new(
            (random.rand(4).zero? ? 0x2001 << 112 : random.rand(2**16) << 112) + random.rand(2**112), Socket::AF_INET6
          ).to_s
        end
      all += %w[
        192.0.0.8
        198.19.255.255
        100.127.255.255
        2001:2::1
        2001:db8::1
        2001:10::1
        fe80::1
        ff02::1
        2606:4700::1
        8.8.8.8
      ]
      script =
        "import sys,ipaddress\nfor l in sys.stdin:\n a=ipaddress.ip_address(l.strip())\n print(int(a.is_global and " \
          "not a.is_multicast))"
      output, = Open3.capture2("/usr/bin/python3", "-c", script, stdin_data: all.join("\n"))
      global = all.zip(output.split).select { |_, said| said == "1" }.map(&:first)
      taken = all.select { |address| described_class.public?(address) }
      expect([taken - global, taken.size > 3_000]).to eq [[], true]
    end

    describe "from a server that means harm" do
      # Answers a connection by hand, byte for byte.
      def serve(&answer)
        server = TCPServer.new("127.0.0.1", 0)
        thread = Thread.new do
          socket = server.accept
          socket.readpartial(4_096)
          answer.call(socket)
        rescue SystemCallError, IOError
          nil # the reader has hung up, as it should
        ensure
          socket&.close
        end
        port = server.addr[1]
        yielded = described_class.new(own: ["127.0.0.1:#{port}"])
        [
          -> { yielded.get("http://127.0.0.1:#{port}/x.ics") },
          -> { [thread, server].each { |one| one.is_a?(Thread) ? one.kill : one.close } }
        ]
      end

      def seconds
        began = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        yield
        Process.clock_gettime(Process::CLOCK_MONOTONIC) - began
      end

      it "gives up in time when it sends one header line after the other, slowly" do
        stub_const("Fetching::WHOLE_S", 2)
        get, stop = serve do |socket|
          socket.write("HTTP/1.1 200 OK\r\n")
          loop { IO.select([], [], [], 0.2) || socket.write("X-More: yes\r\n") }
        end
        expect(seconds { expect { get.call }.to raise_error(Fetching::Failed, /within 2 seconds/) }).to be_between(
          1.5, 10
        )
        stop.call
      end

      {
        "a header line without an end" => ->(socket) { loop { socket.write("X: #{"x" * 60_000}") } },
        "header lines without an end" => ->(socket) { loop { socket.write("X-More: #{"x" * 6_000}\r\n") } },
        "a body without an end" => ->(socket) do
          socket.write("Content-Type: text/calendar\r\n\r\n") && loop { socket.write("x" * 60_000) }
        end,
        "pieces without an end" => ->(socket) do
          socket.write("Transfer-Encoding: chunked\r\n\r\n") && loop { socket.write("1;#{"x" * 60_000}\r\nx\r\n") }
        end
      }.each do |what, answer|
        it "gives up when it sends #{what}" do
          get, stop = serve { |socket| socket.write("HTTP/1.1 200 OK\r\n") && answer.call(socket) }
          expect { get.call }.to raise_error(Fetching::Failed, /larger than 5 MB/)
          stop.call
        end
      end

      it "does not unpack what is packed, however small it came" do
        packed = Zlib.gzip("x" * 300_000_000)
        get, stop = serve do |socket|
          socket.write(
            "HTTP/1.1 200 OK\r\nContent-Encoding: gzip\r\nContent-Length: #{packed.bytesize}\r\n\r\n#{packed}"
          )
        end
        expect(get.call.body.bytesize).to eq packed.bytesize
        stop.call
      end
    end

    it "asks conditionally, follows a redirect, and keeps what it knew when an address fails" do
      calendars.add(id: id, name: "Host", kind: "address", person_id: wen, address: address("/once"))
      expect([calendars.fetch_next(fetching), calendars.read_next, calendars.fetch_next(fetching)]).to eq [
        true, true, false
      ]
      calendars.read_again(id)
      expect([calendars.fetch_next(fetching), calendars.read_next]).to eq [true, false] # unchanged: nothing to read
      Records::Calendar.where(id: id).update_all(address: address("/gone"))
      calendars.read_again(id)
      calendars.fetch_next(fetching)
      expect(shown).to include(last_error: "The address answers 410 Gone.", succeeded_at: clock.now)
      expect(spans.size).to eq 1
    end
  end
end
