require_relative "../app_helper"
require_relative "../support/call_exchange"
require "json_schemer"
require "yaml"

# What is said between the application and a call service, held against contract/calls.yaml.
RSpec.describe CallService do
  let!(:marit) { person("Marit Hauge") }
  let!(:ines) { person("Ines Torvald") }
  let!(:wen) { person("Wen Halloran") }
  let(:service) { described_class.new }
  let(:starts) { Clock.now + 300 }
  let(:week) do
    series(marit, {required: ines}, zone: "Etc/UTC", start: starts.strftime("%FT%R"), rule: "FREQ=WEEKLY;COUNT=3",
      call: {kind: "standing", dial: true})
  end
  let(:call) { Records::Call.find_by!(series_id: week) }
  let(:wish) { Loading::CallWish.new(call.reload, now: clock.now) }

  before do
    CallExchange.open
    week
  end

  def faults(schema, data)
    document = YAML.load_file(File.join(Settings::ROOT, "contract/calls.yaml"))
    plain = JSON.parse(JSON.generate(data))
    JSONSchemer.openapi(document).ref("#/components/schemas/#{schema}").validate(plain).map { |one| one["error"] }
  end

  it "asks and is answered in the shapes of the contract, whoever is asked how" do
    first, second = meeting_ids(week)
    use(UseCases::Substitutes, marit).ask_too(meeting_id: second, person_id: wen)
    use(UseCases::Rows, marit).set(meeting_id: first, slots: [{
      id: key, name: "Pat", email: "pat@harbour.example", length_min: 15, local_start: starts.strftime("%FT%R")
    }])
    said = wish.to_h
    expect(faults("CallWish", said)).to eq []
    parts = said[:people].to_h { |one| [one[:name], one.slice(:part, :waits, :only)] }
    at = ->(id) { [Records::Meeting.find(id).starts_at.iso8601] }
    expect(parts).to match(
      "Marit Hauge" => {part: "host"}, "Ines Torvald" => {part: "member"},
      "Wen Halloran" => {part: "member", only: at[second]},
      "Pat" => {part: "guest", waits: true, only: at[first]}
    )
    expect(faults("Call", service.put(call.id, said))).to eq []
    caller = Caller.new(service.put(call.id, said)["url"])
    caller.enter(name: "Pat", passcode: call.passcode)
    caller.leave
    reports = service.reports(call.id, after: 0)
    expect(reports.map { |one| one["kind"] }).to eq %w[waits left]
    expect(reports.flat_map { |one| faults("Report", one) }).to eq []
    expect(service.reports(call.id, after: 1).size).to eq 1
  end

  it "changes nothing when it says the same again, and knows one that is gone" do
    links = Array.new(2) { service.put(call.id, wish.to_h)["url"] }
    expect(links.uniq.size).to eq 1
    service.end_call(call.id)
    expect(Caller.new(links.first).enter(name: "Pat", passcode: call.passcode)).to eq "This link is not in use."
    expect(service.end_call(key)).to eq({})
  end

  it "keeps what it knows when it is killed" do
    link = service.put(call.id, wish.to_h)["url"]
    Caller.new(link).enter(name: "Pat", passcode: call.passcode)
    CallExchange.crash
    expect(service.put(call.id, wish.to_h)["url"]).to eq link
    expect(service.reports(call.id, after: 0).map { |one| one["name"] }).to eq ["Pat"]
  end

  it "says when the service is away, does not take something, or does not believe us" do
    expect { described_class.new({url: "http://127.0.0.1:9", secret: "x"}).put(call.id, {}) }
      .to raise_error CallService::Away
    expect { described_class.new(nil).put(call.id, {}) }.to raise_error CallService::Away
    expect(described_class.new(nil)).not_to be_any
    expect { service.put(call.id, wish.to_h.merge(door: "ajar")) }.to raise_error CallService::Refused, /422/
    expect { described_class.new({url: CallExchange.address, secret: "guessed"}).put(call.id, wish.to_h) }
      .to raise_error CallService::Refused, /401/
  end

  # A service that takes a while, in which somebody renews the link.
  it "is told again of what changed while it was told" do
    renewal = -> { use(UseCases::Calls, marit).renew(series_id: week, renewal: 0) }
    slow = Class.new(described_class) { define_method(:put) { |*said| super(*said).tap { renewal.call } } }.new
    clock.now += 1
    UseCases::Calls.new(service: slow, clock: clock).work_next
    first = call.reload.url
    expect(UseCases::Calls.new(service: service, clock: clock).work_next).to be true
    expect(call.reload).to have_attributes(renewal: 1, state: "made")
    expect(call.url).not_to eq first
    expect(UseCases::Calls.new(service: service, clock: clock).work_next).to be false
  end

  it "is left alone after three faults, where the admin sees it and has it tried again" do
    said = described_class.new({url: CallExchange.address, secret: "guessed"})
    4.times do
      clock.now += 3_600
      UseCases::Calls.new(service: said, clock: clock).work_next
    end
    listed = use(Views::SetAside, marit).list[:calls]
    expect(listed).to match [a_hash_including(title: "Monday mooring round", reason: /401/)]
    use(UseCases::Faults, marit).try_again
    UseCases::Calls.new(service: service, clock: clock).work_next
    expect(call.reload.state).to eq "made"
    expect(use(Views::SetAside, marit).list[:calls]).to eq []
  end

  # Random ways of reports through the database: doubled, mixed, some only fetched later. Attendance is what the core
  # makes of them in order.
  it "gives one attendance whatever becomes of its reports on their way" do
    random = Random.new(7)
    first = meeting_ids(week).first
    state(first, marit, "in_session")
    Records::Meeting.where(id: first).update_all(starts_at: clock.now - 3_600, begun_at: clock.now - 3_600)
    reports = [ines, marit].flat_map { |one| life(one, random) }
    in_order = attendance_after(reports)
    expect(in_order.keys).to match_array [ines, marit]
    8.times {
      expect(attendance_after((reports + reports.sample(3, random: random)).shuffle(random: random))).to eq in_order
    }
  end

  def life(person_id, random)
    at = clock.now.floor - 3_000
    Array.new(3) do |i|
      visit = "#{person_id[-6..]}-#{i}"
      came = at + i * 900 + random.rand(300)
      left = came + 200 + random.rand(400)
      [report("came", came, visit, person_id), report("left", left, visit, person_id, came_at: came.iso8601)]
    end.flatten
  end

  def report(kind, at, visit, person_id, **more)
    {
      "id" => "#{kind}-#{visit}", "call" => call.id, "number" => 1, "kind" => kind, "at" => at.iso8601,
      "visit" => visit, "person" => person_id, "name" => "x", **more.transform_keys(&:to_s)
    }
  end

  def attendance_after(reports)
    Records::CallReport.delete_all
    Records::Attendance.delete_all
    reports.each { |one| UseCases::CallReports.new(clock: clock).take(one) }
    Records::Attendance.pluck(:person_id, :state, :spans).to_h { |id, *rest| [id, rest] }
  end
end
