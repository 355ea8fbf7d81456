require_relative "../app_helper"

RSpec.describe UseCases::Reminders, at: Stage::STORY do
  let(:marit) { person("Marit Hauge") }
  let(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:series_id) { series(marit, {required: wen}, remind_min: 60) }
  let(:meeting) { meeting_ids(series_id).first }

  before do
    wants_own_mail(marit)
    invite(series_id, marit)
  end

  # 30 November 09:30 in Oslo is 08:30 UTC.
  def at(text) = clock.now = Time.iso8601(text)

  def put = described_class.new(clock: clock).put_due

  it "goes out once, an hour before, and not to who has declined" do
    at("2026-11-30T07:25:00Z")
    expect(put).to eq 0
    use(UseCases::Answers, wen).keep(series_id: series_id, person_id: wen, meeting_id: meeting, answer: "declined")
    at("2026-11-30T07:31:00Z")
    expect([put, put]).to eq [1, 0]
    expect(Records::Mail.where("reason like 'remind:%'").pluck(:recipient, :subject)).to eq [
      ["marit@skerrybuoy.example", "Soon: Monday mooring round"]
    ]
  end

  it "goes to nobody who has not been told of the meeting yet" do
    untold = series(marit, {required: wen}, title: "Night watch", remind_min: 60)
    lars = person("Lars Ekeli")
    use(UseCases::SeriesMembers, marit).set(
      Records::Series.find(series_id), [{person_id: wen, role: "required"}, {person_id: lars, role: "required"}]
    )
    at("2026-11-30T07:31:00Z")
    expect(
      [
        put, Records::Mail.where("reason like 'remind:%'").pluck(:recipient).sort,
        Records::Mail.where(series_id: untold).count
      ]
    ).to eq [2, %w[marit@skerrybuoy.example wen@skerrybuoy.example], 0]
  end

  describe "for each person" do
    def subjects =
      Records::Mail
        .where("reason like 'remind:%' or reason like 'text:%'")
        .order(:created_at, :id)
        .pluck(:way, :recipient)

    def wants(who, **wish) =
      use(UseCases::People, who).keep_reminders(id: who, phone: nil, text_reminders: false, remind_min: nil, **wish)

    it "comes as long before as they want, or not at all" do
      wants(wen, remind_min: 1440)
      wants(marit, remind_min: 0)
      at("2026-11-29T08:31:00Z")
      expect([put, subjects]).to eq [1, [["mail", "wen@skerrybuoy.example"]]]
      at("2026-11-30T07:31:00Z")
      expect([put, subjects.size]).to eq [0, 1]
    end

    it "comes by text message for who wants it, once, with the time on their own wall and the way into the call" do
      use(UseCases::Series, marit).then do |series|
        series.change(
          id: series_id,
          version: Records::Series.find(series_id).lock_version,
          title: "Round",
          members: [{person_id: wen, role: "required"}],
          remind_min: 0,
          call: {
            url: "https://calls.example/round"
          }
        )
      end
      wants(wen, phone: "+1 (902) 555-0111", text_reminders: true)
      at("2026-11-30T08:10:00Z")
      expect(put).to eq 0
      at("2026-11-30T08:16:00Z")
      expect([put, put, subjects]).to eq [1, 0, [%w[text +19025550111]]]
      texts = Object.new.tap do |one|
        one
          .define_singleton_method(:deliver) { |to:, text:| (@taken ||= []) << [to, text] }
          .then { one.define_singleton_method(:taken) { @taken } }
      end
      UseCases::Outbox
        .new(clock: clock)
        .then do |outbox|
          nil while outbox.deliver(Object.new.tap { |post| def post.deliver(**) = nil }, texts: texts).positive?
        end
      expect(texts.taken).to eq [
        ["+19025550111", "Round, Monday 30 November 2026, 04:30 Halifax time, https://calls.example/round"]
      ]
    end

    [["55 00 00 00", "/phone"], ["+47 nine", "/phone"], [nil, "/phone"]].each do |phone, pointer|
      it "refuses the number #{phone.inspect} at its field" do
        expect { wants(wen, phone: phone, text_reminders: true) }.to raise_error(Core::Invalid) { |error|
          expect(error.pointer).to eq pointer
        }
      end
    end
  end

  it "follows what one meeting has of its own" do
    use(UseCases::MeetingChanges, marit).set_options(
      meeting_id: meeting, pass_on: nil, answers_asked: nil, sign_up: nil, sign_up_limit: nil, remind_min: 15
    )
    at("2026-11-30T07:31:00Z")
    expect(put).to eq 0
    at("2026-11-30T08:16:00Z")
    expect(put).to eq 2
  end

  it "goes along when the meeting moves" do
    at("2026-11-30T07:31:00Z")
    put
    use(UseCases::MeetingChanges, marit).move(meeting_id: meeting, version: 0, local_start: "2026-12-02T15:00")
    at("2026-12-02T13:05:00Z")
    expect(put).to eq 2
  end

  it "tells of papers the day before, on the reader's own wall" do
    paper = key
    use(UseCases::Papers, marit).begin_paper(id: paper, meeting_id: meeting, name: "chart.txt", size_bytes: 5)
    use(UseCases::Papers, marit).put_piece(id: paper, number: 0, bytes: "depth")
    at("2026-11-29T08:00:00Z")
    expect(put).to eq 0
    at("2026-11-29T08:40:00Z")
    expect([put, put]).to eq [2, 0]
    text =
      ::Mail
        .new(
          Records::Mail.find_by(recipient: "wen@skerrybuoy.example", subject: "To read: Monday mooring round").source
        )
        .text_part
        .decoded
    expect(text).to include "Monday 30 November 2026, 04:30 Halifax time", "chart.txt"
  end
end
