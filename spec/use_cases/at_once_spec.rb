require_relative "../app_helper"

# Two people, or one person twice, at the same moment.
RSpec.describe "At once" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:series_id) { series(marit, {required: ines}) }
  let(:meeting_id) { meeting_ids(series_id).first }

  # Runs the blocks, or a list of them, together. @return [Array] what each gave, or the error it raised
  def together(*blocks)
    gate = Queue.new
    blocks = blocks.flatten
    threads = blocks.map do |block|
      Thread.new do
        gate.pop
        block.call
      rescue Core::Error => error
        error.class
      end
    end
    blocks.size.times { gate << true }
    threads.map(&:value)
  end

  it "closes a meeting once" do
    state(meeting_id, marit, "in_session")
    topic_id = topic(meeting_id, marit, "Boats")
    together(*Array.new(4) { -> { state(meeting_id, marit, "closed") } })
    expect(Records::Meeting.find(meeting_id).state).to eq "closed"
    expect(Records::TopicVisit.where(topic_id: topic_id).count).to eq 1
  end

  it "issues minutes once, and mails each person once" do
    %w[in_session closed].each { |to| state(meeting_id, marit, to) }
    together(*Array.new(4) { -> { state(meeting_id, marit, "issued") } })
    expect([Records::MinutesVersion.count, Records::Mail.count]).to eq [1, 2]
  end

  it "keeps one line for one key, sent twice at the same moment" do
    state(meeting_id, marit, "in_session")
    id = key
    add = -> { use(UseCases::Minutes, marit).add(id: id, meeting_id: meeting_id, kind: "note", text: "Calm") }
    expect(together(add, add, add)).to all(be_nil)
    expect(Records::Line.count).to eq 1
  end

  it "lets one of two different changes to the same line through, and tells the other" do
    state(meeting_id, marit, "in_session")
    use(UseCases::Minutes, marit).add(id: id = key, meeting_id: meeting_id, kind: "note", text: "Calm")
    changes = ["Calm until noon", "Calm and cold"].map do |text|
      -> { use(UseCases::Minutes, marit).change(id: id, version: 0, kind: "note", text: text) }
    end
    expect(together(*changes)).to contain_exactly(nil, Core::Stale)
  end

  describe "what is done to an action" do
    let!(:action) do
      state(meeting_id, marit, "in_session")
      raise_action(meeting_id, marit, "Order rope and paint", owners: [marit, ines])
    end
    let(:following) { meeting_ids(series_id)[1] }

    before do
      clock.now = Records::Meeting.find(meeting_id).ends_at
      state(meeting_id, marit, "closed")
      clock.now = Records::Meeting.find(following).starts_at
      state(following, marit, "in_session")
    end

    def parts = Array.new(2) { |i| {id: key, text: "Order part #{i}"} }

    it "is split once: the others are told, and nothing is made twice" do
      split = -> do
        use(UseCases::Actions, marit).split(meeting_id: following, action_id: action, parts: parts)
      end
      told = together(Array.new(12) { split })
      expect(told.tally).to eq nil => 1, Core::Conflict => 11
      expect(Records::ActionItem.where(split_from_id: action).count).to eq 2
    end

    it "is split once under its keys, and refused under somebody else's" do
      wish = parts
      split = ->(by, what) { use(UseCases::Actions, by).split(meeting_id: following, action_id: action, parts: what) }
      expect(together(*Array.new(4) { -> { split[marit, wish] } })).to all(be_nil)
      expect(Records::ActionItem.where(split_from_id: action).count).to eq 2
      taken = raise_action(following, ines, "Tar the hull")
      [wish, [{id: taken, text: "Mine now"}, parts.first]].each do |what|
        expect { split[ines, what] }.to raise_error(Core::Conflict) { |error| expect(error.code).to eq "key-taken" }
      end
    end

    {
      "handed over" => [
        ->(spec, id, to) do
          spec.use(UseCases::HandingOver, spec.marit).hand_over(id: spec.key, action_id: id, series_id: to)
        end,
        -> { Records::ActionItem.where.not(handed_from_id: nil).count }, {nil => 1, Core::Conflict => 3}
      ],
      "dropped" => [
        ->(spec, id, _) { spec.use(UseCases::Actions, spec.marit).move(id: id, state: "dropped", reason: "No") },
        -> { Records::ActionChange.where(change_kind: "dropped").count }, {nil => 4}
      ],
      "made one each" => [
        ->(spec, id, _) { spec.use(UseCases::Actions, spec.marit).one_each(id) },
        -> { Records::ActionItem.count - 1 }, {nil => 4}
      ],
      "reviewed" => [
        ->(spec, id, _) do
          spec.use(UseCases::Actions, spec.marit).review(meeting_id: spec.following, action_id: id, verdict: "done")
        end,
        -> { Records::ActionChange.where(change_kind: "done").count }, {nil => 4}
      ]
    }.each do |what, (deed, made, told)|
      it "is #{what} once" do
        other = series(marit, {required: ines}, title: "Boats", start: "#{today + 60}T10:00")
        found = together(Array.new(4) { -> { deed.call(self, action, other) && nil } })
        expect([found.tally, made.call]).to eq [told, 1]
      end
    end
  end

  it "sends an invitation once, pressed twice" do
    press = key
    send_it = -> { use(UseCases::Invitations, marit).send_all(id: press, series_id: series_id) }
    together(send_it, send_it)
    expect([Records::Sending.count, Records::Mail.count]).to eq [1, 1]
  end

  it "makes one first person" do
    Records::Person.delete_all
    set_up = ->(name) do
      -> do
        UseCases::People.new(clock: clock).set_up(
          id: key, name: name, email: "#{name}@skerrybuoy.example", time_zone: "UTC", password: "buoys afloat",
          code: Settings.set_up_code
        )
      end
    end
    expect(together(set_up["a"], set_up["b"]).count(Core::Conflict)).to eq 1
    expect(Records::Person.count).to eq 1
  end

  it "runs a whole transaction again after a deadlock, keeping all of it" do
    people = [marit, ines].map { |id| Records::Person.find(id) }
    swap = lambda do |first, second|
      -> {
        Records::Base.write do
          Records::Person.lock.find(first.id).update!(name: "#{Records::Person.find(first.id).name}+")
          Records::Person.lock.find(second.id).update!(name: "#{Records::Person.find(second.id).name}+")
        end
      }
    end
    together(*Array.new(4) { |i| swap[*(i.even? ? people : people.reverse)] })
    expect(people.map { |one| one.reload.name }).to eq ["Marit Hauge++++", "Ines Torvald++++"]
  end
end
