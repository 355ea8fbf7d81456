require_relative "../spec_helper"

# Groups in groups; invented names.
RSpec.describe Core::GroupTree do
  tree = described_class.new([
    %w[crew wen], %w[crew lars], %w[all marit], ["all", nil, "crew"], %w[shore wen], ["shore", nil, "all"]
  ])

  {"crew" => %w[wen lars], "all" => %w[marit wen lars], "shore" => %w[wen marit lars], "nobody" => []}
    .each do |group, people|
      it("finds #{people.any? ? people.join(", ") : "nobody"} in #{group}") do
        expect(tree.people_of(group)).to eq people
      end
    end

  {"crew" => %w[crew all shore], "all" => %w[all shore], "shore" => %w[shore]}.each do |group, above|
    it("finds #{group} in #{above.drop(1).join(", ")}") { expect(tree.above(group)).to match_array above }
  end

  it "walks a circle once, where there is one all the same" do
    circle = described_class.new([["a", nil, "b"], ["b", nil, "a"], %w[b wen]])
    expect([circle.people_of("a"), circle.above("a")]).to eq [%w[wen], %w[a b]]
  end
end

RSpec.describe Core::Invitation::Roles do
  it "gives everybody the weightiest role of their groups, unless they are named themselves" do
    by_group = [["wen", :informed], ["wen", :required], ["lars", :optional], ["ines", :required]]
    expect(described_class.settle(by_group, [["ines", :informed]]))
      .to eq("wen" => :required, "lars" => :optional, "ines" => :informed)
  end

  it "lists people by role, then by name" do
    people = [%w[informed Ann], %w[required Wen], %w[optional Lars], %w[required Ines]]
    expect(described_class.sort(people) { |one| one }.map(&:last)).to eq %w[Ines Wen Lars Ann]
  end
end
