require_relative "../api_helper"

# Two people write on one sheet at once, each with a connection that loses answers, so that deeds are sent again. Random
# deeds against what must hold whatever their order: no text is lost, none doubled, none written over unseen.
# WRITERS=1000 does a thousand pairs (bin/bench writers).
RSpec.describe "Two who write on one sheet" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let(:meeting) { meeting_ids(series(marit, {required: ines}, chair_id: ines, rule: nil)).first }
  let(:topics) { [nil, topic(meeting, marit, "Boats"), topic(meeting, marit, "Crew")] }

  # One of the two: what they have seen, and what waits to be sent, in order.
  let(:writer) do
    Class.new(Struct.new(:person, :random, :topics, :meeting, :seen, :waiting, :typed, :choices, :unseen, :added)) do
      def read
        self.seen = Records::Line.standing.where(meeting_id: meeting).pluck(:id, :lock_version).to_h
      end

      def act
        id = seen.keys.sample(random: random)
        deed = id ? %i[add add change change place remove restore].sample(random: random) : :add
        waiting << send(:"#{deed}_deed", id)
      end

      def add_deed(_)
        id, text = Records::Key.make, typing
        after = [:last, nil, *seen.keys].sample(random: random)
        seen[id] = 0
        added << id
        [:add, {id: id, meeting_id: meeting, text: text, kind: "note", topic_id: a_topic, after_id: after}]
      end

      def change_deed(id) = [:change, {id: id, version: seen[id], kind: "note", text: typing}]

      def place_deed(id) = [:move, {id: id, topic_id: a_topic, after_id: seen.keys.sample(random: random)}]

      def remove_deed(id) = [:remove, id]

      def restore_deed(id) = [:restore, {id: id}]

      def a_topic = topics.sample(random: random)

      def typing = "#{person[-4..]} #{typed.size}".tap { |text| typed << text }

      # The answer may be lost: then the same is sent again.
      def send_next
        name, wish = waiting.shift
        ((random.rand < 0.3) ? 2 : 1).times { deliver(name, wish) } if name
      end

      def deliver(name, wish)
        minutes = UseCases::Minutes.new(by: person)
        before = Records::Line.where(id: wish[:id]).pick(:text, :lock_version) if name == :change
        wish.is_a?(Hash) ? minutes.public_send(name, **wish) : minutes.public_send(name, wish)
        return unless name == :change

        unseen << before.first if before.first != wish[:text] && before.last != wish[:version]
        seen[wish[:id]] = Records::Line.find(wish[:id]).lock_version
      rescue Core::Stale, Core::NotFound
        choices << wish[:text] if name == :change # both texts stand side by side
        read
      end
    end
  end

  it "never loses or doubles a text, and both end with the same sheet" do
    pairs = Integer(ENV.fetch("WRITERS", "25"))
    seed = Integer(ENV.fetch("SEED", RSpec.configuration.seed.to_s))
    pairs.times do |n|
      random = Random.new(seed + n)
      Records::Line.where(meeting_id: meeting).delete_all
      both = [marit, ines].map { |who| writer.new(who, random, topics, meeting, {}, [], [], [], [], []) }
      40.times do
        one = both.sample(random: random)
        one.public_send(%i[act act send_next send_next read].sample(random: random))
      end
      both.each { |one| one.send_next until one.waiting.empty? }
      expect_nothing_lost(both, "seed #{seed + n}")
    end
  end

  def expect_nothing_lost(both, where)
    lines = Records::Line.where(meeting_id: meeting).to_a
    expect(both.flat_map(&:unseen)).to be_empty, "#{where}: written over without having been seen"
    added = both.flat_map(&:added)
    expect(lines.map(&:id)).to match_array(added), "#{where}: lines lost or doubled"
    expect(lines.map(&:text).tally.values.all?(1)).to be(true), "#{where}: a text stands twice"
    expect(both.flat_map(&:choices) & lines.map(&:text)).to be_empty, "#{where}: a choice was kept, too"
    places = lines.reject(&:removed_at).map { |line| [line.topic_id, line.position, line.id] }
    expect(places.uniq.size).to eq(places.size), where
  end
end
