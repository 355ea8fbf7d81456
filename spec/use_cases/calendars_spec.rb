require_relative "../app_helper"
require "puma"
require "puma/server"

RSpec.describe UseCases::Calendars do
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:calendars) { UseCases::Calendars.new(by: wen, clock: clock) }
  let(:id) { key }

  def ics(*starts, more: "") = "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\n#{starts.each_with_index.map { |start, i| "BEGIN:VEVENT\r\nUID:#{i}\r\nDTSTAMP:20260101T000000Z\r\nSUMMARY:#{i}\r\nDTSTART:#{start}\r\nDURATION:PT1H\r\n#{more}END:VEVENT\r\n" }.join}END:VCALENDAR\r\n"

  def add(content) = calendars.add(id: id, name: "Work", kind: "file", person_id: wen, content: content)

  def spans = Records::BusySpan.order(:starts_min).map { |span| [Time.at(span.starts_min * 60).utc.strftime("%d %H:%M"), span.title] }

  it "replaces what it knew by the difference, and keeps it when the newer file is broken" do
    add(ics("20261201T100000Z", "20261202T100000Z"))
    expect([calendars.read_next, calendars.read_next]).to eq [true, false]
    kept = Records::BusySpan.order(:starts_min).first
    calendars.replace(id: id, content: ics("20261201T100000Z", "20261203T100000Z"))
    calendars.read_next
    expect(spans).to eq [["01 10:00", "0"], ["03 10:00", "1"]]
    expect(Records::BusySpan.order(:starts_min).first).to eq kept
    Records::Calendar.where(id: id).update_all(incoming: ics("20261204T100000Z").sub("END:VEVENT", ""), state: "waiting") # past the first look
    calendars.read_next
    expect(calendars.show(id)).to include(state: "failed", last_error: /END:VCALENDAR stands where END:VEVENT is expected/)
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

  def many = ics(*Array.new(5_000) { |i| (Time.utc(2026, 11, 1) + i * 900).strftime("%Y%m%dT%H%M%SZ") }, more: "RRULE:FREQ=WEEKLY;COUNT=4\r\n")

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
    expect([calendars.show(id)[:state], spans]).to eq ["cancelled", [["01 10:00", "0"]]]
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
      "/wen.ics" => ->(env) { (env["HTTP_IF_NONE_MATCH"] == "\"1\"") ? [304, {}, []] : [200, {"etag" => "\"1\"", "content-type" => "text/calendar"}, ["BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20261201T100000Z\r\nDURATION:PT1H\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n"]] },
      "/round" => ->(_) { [302, {"location" => "/round"}, []] }, "/inwards" => ->(_) { [302, {"location" => "http://127.0.0.1:1/secret"}, []] }, "/once" => ->(_) { [301, {"location" => "/wen.ics"}, []] },
      "/large" => ->(_) { [200, {}, Array.new(21) { "x" * 1_000_000 }] }, "/gone" => ->(_) { [410, {}, []] }
    }

    before(:context) do
      @server = Puma::Server.new(->(env) { answers.fetch(env["PATH_INFO"]).call(env) }, nil, {log_writer: Puma::LogWriter.null})
      @port = @server.add_tcp_listener("127.0.0.1", 0).addr[1]
      @server.run
    end
    after(:context) { @server.stop(true) }

    let(:fetching) { described_class.new(own: ["127.0.0.1:#{@port}"]) }

    def address(path) = "http://127.0.0.1:#{@port}#{path}"

    {"/round" => /without an end/, "/inwards" => /server's own network/, "/large" => /larger than 20 MB/, "/gone" => /answers 410/}.each do |path, sentence|
      it("gives up on #{path}, saying why") { expect { fetching.get(address(path)) }.to raise_error(Fetching::Failed, sentence) }
    end

    %w[http://127.0.0.1/ http://localhost:8600/ http://[::1]/ http://169.254.169.254/latest http://10.0.0.1/ http://0.0.0.0/ http://[::ffff:127.0.0.1]/].each do |inside|
      it("does not reach into the server's own network by #{inside}") { expect { fetching.get(inside) }.to raise_error(Fetching::Failed, /own network|cannot be reached|no host/) }
    end

    it "asks conditionally, follows a redirect, and keeps what it knew when an address fails" do
      calendars.add(id: id, name: "Host", kind: "address", person_id: wen, address: address("/once"))
      expect([calendars.fetch_next(fetching), calendars.read_next, calendars.fetch_next(fetching)]).to eq [true, true, false]
      calendars.read_again(id)
      expect([calendars.fetch_next(fetching), calendars.read_next]).to eq [true, false] # unchanged: nothing to read
      Records::Calendar.where(id: id).update_all(address: address("/gone"))
      calendars.read_again(id)
      calendars.fetch_next(fetching)
      expect(calendars.show(id)).to include(last_error: "The address answers 410 Gone.", succeeded_at: clock.now)
      expect(spans.size).to eq 1
    end
  end
end
